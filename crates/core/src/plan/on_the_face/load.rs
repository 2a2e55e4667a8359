//! What the drawn face carries: a load at one of its holes, held at another, by what its seams stand.

use serde::Serialize;

use super::part::{FlatFace, flat_face};
use crate::body::{Force, GRAVITY, Held, Loading, Shock, Stands, carried, margin_notes};
use crate::crack::said::CrackFate;
use crate::field::part;
use crate::job::Job;
use crate::map::At;
use crate::plan::Plan;
use crate::quantity::{Unit, UnitSystem, number};
use crate::shop::Shop;
use crate::stage::map::round_holes;

/// What a face carries.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceLoad {
    /// Of the seam that is stressed most: "Crack A: whole it breaks under about 310 to 380 kg there, mended under 250 to
    /// 300; 60 kg with knocks use up 0.4 to 0.5 of it."
    pub sentence: String,
    /// The others, a sentence each.
    pub others: Vec<String>,
    /// Margin, cause, who answers for it.
    pub notes: Vec<String>,
    pub not_in_it: String,
}

/// House: what walls are not known by; twice the wall is half of the stress.
const WALLS: f64 = 0.1;

/// What one seam is asked for.
struct AtSeam {
    letter: String,
    /// Of what whole iron, and of what the joint stands without a strap.
    whole_share: f64,
    joint_share: f64,
    strap: Option<StrapOver>,
}

/// A strap over a seam, as it is laid out at Prep.
#[derive(Clone, Copy)]
struct StrapOver {
    /// Of a pull, 0 to 1.
    takes: f64,
    /// It was said that it is put on.
    chosen: bool,
}

impl AtSeam {
    /// What is left to the joint under the strap that is put on.
    fn left_share(&self) -> f64 {
        let put_on = self.strap.filter(|strap| strap.chosen);
        self.joint_share * (1.0 - put_on.map_or(0.0, |strap| strap.takes))
    }
}

/// What is hung on a face, and where it is held.
struct Asked {
    kg: f64,
    /// Nothing where nobody said: then the worst of them counts.
    said_shock: Option<Shock>,
    often: bool,
    loaded: usize,
    held: usize,
    way: (f64, f64),
}

impl Asked {
    fn shock(&self) -> Shock {
        self.said_shock.unwrap_or(Shock::Knocked)
    }
}

/// What the drawn face carries. Else why nothing is said; empty while no load is said.
///
/// # Errors
/// The sentence.
pub fn face_load(job: &Job, plan: &Plan, shop: &Shop) -> Result<FaceLoad, String> {
    let round = job.round();
    let Some(kg) = round.get(part::LOAD) else { return Err(String::new()) };
    let flat = flat_face(job, plan, shop)?;
    let names: Vec<&str> = round_holes(flat.of).map(|(name, ..)| name).collect();
    let hole = |said: Option<&str>, what: &str| {
        let said = said.unwrap_or_default().trim();
        if said.is_empty() {
            return Err(format!("Say {what}: a bolt hole or bore of the map."));
        }
        names
            .iter()
            .position(|name| name.eq_ignore_ascii_case(said))
            .ok_or_else(|| format!("No {said} on this face: {}.", known(&names)))
    };
    let loaded = hole(round.get(part::LOAD_AT), "at which hole it hangs")?;
    let held = hole(round.get(part::LOAD_HELD), "at which hole it is held")?;
    if loaded == held {
        return Err("It hangs where it is held: that asks nothing of a seam.".to_owned());
    }
    let Some(towards) = round.get(part::LOAD_TOWARDS) else {
        return Err("Say which way it pulls, as the face is drawn.".to_owned());
    };
    let asked = Asked {
        kg,
        said_shock: round.get(part::LOAD_HOW),
        often: round.get(part::LOAD_OFTEN) == Some(true),
        loaded,
        held,
        way: towards.way(),
    };
    let ratio = plan.methods.taken().map_or(1.0, |taken| taken.strength);
    let stands = Stands::of(flat.iron, ratio);
    let mut seams: Vec<AtSeam> = seams_of(plan, &flat)
        .filter_map(|(letter, line)| at_seam(&flat, &asked, stands, (letter, line)))
        .map(|seam| AtSeam { strap: strap_over(plan, &seam.letter), ..seam })
        .collect();
    seams.sort_by(|one, other| other.left_share().total_cmp(&one.left_share()));
    let Some(worst) = seams.first() else {
        return Err("No seam of this face is asked for anything by it.".to_owned());
    };
    let whole_breaks = worst.whole_share > 1.0;
    let margin = 1.0 / worst.left_share().max(worst.whole_share);
    let say = |seam: &AtSeam| sentence(seam, &asked, plan.units);
    Ok(FaceLoad {
        sentence: say(worst),
        others: seams[1..].iter().map(say).collect(),
        notes: seams.iter().filter_map(strap_words).chain(margin_notes(whole_breaks, margin)).collect(),
        not_in_it: "Flat, elastic, the face as drawn, walls to a tenth. Not in it: a corner at the seam, bending out of \
                    the face, stress that was cast in, iron that is weaker than its kind."
            .to_owned(),
    })
}

fn known(names: &[&str]) -> String {
    match names {
        [] => "it has no bolt hole and no bore".to_owned(),
        names => format!("it has {}", names.join(", ")),
    }
}

/// Cracks that are joined, on the face that is reckoned with.
fn seams_of<'a>(plan: &'a Plan, flat: &'a FlatFace<'_>) -> impl Iterator<Item = (&'a str, &'a [At])> {
    let joined = |letter: &str| {
        plan.cracks.iter().any(|crack| crack.letter == letter && crack.becomes == CrackFate::Repair)
    };
    let cracks = flat.letters.iter().zip(&flat.piece.cracks);
    cracks.map(|(letter, line)| (letter.as_str(), line.as_slice())).filter(move |(letter, _)| joined(letter))
}

fn at_seam(
    flat: &FlatFace<'_>,
    asked: &Asked,
    stands: Stands,
    (letter, line): (&str, &[At]),
) -> Option<AtSeam> {
    // What is cut out of the face comes before its round holes.
    let cut_out = flat.of.rims.len() - 1;
    let force_n = asked.kg * GRAVITY * asked.shock().factor();
    let loading = Loading {
        held: vec![Held::Hole(cut_out + asked.held)],
        forces: vec![Force {
            at: Held::Hole(cut_out + asked.loaded),
            x_n: force_n * asked.way.0,
            y_n: force_n * asked.way.1,
        }],
        seam: line.to_vec(),
    };
    let most_mpa = carried(&flat.piece, &loading).ok()??.most_mpa.max(0.0);
    Some(AtSeam {
        letter: letter.to_owned(),
        whole_share: most_mpa / stands.whole_mpa(asked.often),
        joint_share: most_mpa / stands.joint_mpa(asked.often),
        strap: None,
    })
}

fn strap_over(plan: &Plan, letter: &str) -> Option<StrapOver> {
    let strap = plan.finish.straps.iter().find(|strap| strap.letter == letter && !strap.is_the_repair)?;
    Some(StrapOver { takes: strap.share?, chosen: strap.chosen })
}

/// What a strap over a seam makes of it; nothing where next to nothing is asked of the seam.
fn strap_words(seam: &AtSeam) -> Option<String> {
    let strap = seam.strap.filter(|_| seam.joint_share >= NOTHING)?;
    let takes = strap.takes * 100.0;
    Some(if strap.chosen {
        format!("Crack {}: its strap takes about {takes:.0} % of a pull, and that is counted.", seam.letter)
    } else {
        let left = used_words(seam.joint_share * (1.0 - strap.takes));
        format!(
            "Crack {}: a strap over it (Prep) takes about {takes:.0} % of a pull, and {left} of what it stands is used up then.",
            seam.letter
        )
    })
}

/// So little that no load of its size is worth naming.
const NOTHING: f64 = 0.01;

/// "0.4 to 0.5", by what the walls are not known by.
fn used_words(share: f64) -> String {
    let used = |walls: f64| number(share / walls, if share < 0.1 { 2 } else { 1 });
    let (least, most) = (used(1.0 + WALLS), used(1.0 - WALLS));
    if least == most { most } else { format!("{least} to {most}") }
}

/// A mass as well as it is known: two figures of it, in the unit it is told in.
fn roughly(kg: f64, units: UnitSystem) -> String {
    const LB_A_KG: f64 = 2.204_622_6;
    let a_kg = match units {
        UnitSystem::Metric => 1.0,
        UnitSystem::Imperial => LB_A_KG,
    };
    let told = (kg * a_kg).max(f64::MIN_POSITIVE);
    let step = 10_f64.powf(told.log10().floor() - 1.0);
    units.say_exactly((told / step).round() * step / a_kg, Unit::Kilograms)
}

fn sentence(seam: &AtSeam, asked: &Asked, units: UnitSystem) -> String {
    let hung = units.say_exactly(asked.kg, Unit::Kilograms);
    let nobody = if asked.said_shock.is_none() { " as nobody said how it comes" } else { "" };
    let how = format!("{}{nobody}", asked.shock().label());
    let letter = &seam.letter;
    if seam.joint_share < NOTHING {
        return format!("Crack {letter}: {hung}, {how}, ask next to nothing of it.");
    }
    let kg = |share: f64| {
        let under = |walls: f64| roughly(asked.kg / share * walls, units);
        format!("{} to {}", under(1.0 - WALLS), under(1.0 + WALLS))
    };
    let strapped = if seam.left_share() < seam.joint_share { "mended and strapped" } else { "mended" };
    format!(
        "Crack {letter}: whole it breaks under about {} there, {strapped} under {}; {hung}, {how}, use up {} of what the \
         joint stands.",
        kg(seam.whole_share),
        kg(seam.left_share()),
        used_words(seam.left_share()),
    )
}
