//! What the drawn face carries: a load at one of its holes, held at another, by what its seams stand.

use serde::Serialize;

use super::part::{FlatFace, flat_face};
use crate::body::{
    Boundary, Corner, Force, GRAVITY, InnerCorner, Loading, Shock, Stands, carried, dropped, margin_notes,
};
use crate::crack::said::CrackFate;
use crate::field::part;
use crate::job::{Job, Round};
use crate::map::{At, nearest};
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
    /// Mend it, strap it, or don't: "By what it carries strap it: mended alone 0.6 to 0.7 is used up, strapped 0.3."
    pub weighed: String,
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
struct LoadInputs {
    kg: f64,
    comes: Comes,
    often: bool,
    loaded: usize,
    held: usize,
    way: (f64, f64),
}

/// How it comes.
enum Comes {
    As(Shock),
    /// Nobody said: then the worst that was not said counts.
    Unsaid,
    /// It falls so far, in mm, on what gives so much.
    Falls(f64, f64),
}

impl Comes {
    fn factor(&self) -> f64 {
        match self {
            Self::As(shock) => shock.factor(),
            Self::Unsaid => Shock::Knocked.factor(),
            Self::Falls(falls_mm, gives_mm) => dropped(*falls_mm, *gives_mm),
        }
    }

    fn words(&self, units: UnitSystem) -> String {
        match self {
            Self::As(shock) => shock.label().to_owned(),
            Self::Unsaid => format!("{} as nobody said how it comes", Shock::Knocked.label()),
            Self::Falls(falls_mm, gives_mm) => {
                let say = |mm: f64| units.say_exactly(mm, Unit::Millimetres);
                format!("falling {} on what gives {}", say(*falls_mm), say(*gives_mm))
            }
        }
    }
}

impl LoadInputs {
    /// The load as it is said, at holes of the face.
    fn said(round: &Round, flat: &FlatFace<'_>, kg: f64) -> Result<Self, String> {
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
        let comes = match (round.get(part::LOAD_DROP), round.get(part::LOAD_GIVES), round.get(part::LOAD_HOW))
        {
            (Some(falls_mm), Some(gives_mm), _) => Comes::Falls(falls_mm, gives_mm),
            (Some(_), None, _) => {
                return Err("Say by how much the part gives under that weight: a fall on what gives little asks for much more."
                    .to_owned());
            }
            (None, _, Some(shock)) => Comes::As(shock),
            (None, _, None) => Comes::Unsaid,
        };
        Ok(Self {
            kg,
            comes,
            often: round.get(part::LOAD_OFTEN) == Some(true),
            loaded,
            held,
            way: towards.way(),
        })
    }

    fn loading(&self, flat: &FlatFace<'_>) -> Loading {
        // What is cut out of the face comes before its round holes.
        let cut_out = flat.of.rims.len() - 1;
        let force_n = self.kg * GRAVITY * self.comes.factor();
        Loading {
            held: vec![Boundary::Hole(cut_out + self.held)],
            forces: vec![Force {
                at: Boundary::Hole(cut_out + self.loaded),
                x_n: force_n * self.way.0,
                y_n: force_n * self.way.1,
            }],
        }
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
    let asked = LoadInputs::said(round, &flat, kg)?;
    let ratio = plan.methods.taken().map_or(1.0, |taken| taken.strength);
    let stands = Stands::of(flat.iron, ratio);
    let corners = corners_beside(plan, &flat);
    let alone: Vec<Vec<At>> = seams_of(plan, &flat).map(|(_, line)| line.to_vec()).collect();
    let lines: Vec<Vec<At>> =
        alone.iter().cloned().chain(corners.iter().map(|it| it.across.clone())).collect();
    let loading = asked.loading(&flat);
    let found = carried(&flat.piece, &loading, &lines);
    // Where it cannot be laid out with its corners, the seams are looked at without them.
    let found = found.or_else(|_| carried(&flat.piece, &loading, &alone)).unwrap_or_default();
    let mut most_mpa = found.into_iter().map(|it| it.map(|it| it.most_mpa.max(0.0)));
    let mut seams: Vec<AtSeam> = seams_of(plan, &flat)
        .zip(&mut most_mpa)
        .filter_map(|((letter, _), mpa)| {
            Some(AtSeam {
                letter: letter.to_owned(),
                whole_share: mpa? / stands.whole_mpa(asked.often),
                joint_share: mpa? / stands.joint_mpa(asked.often),
                strap: strap_over(plan, letter),
            })
        })
        .collect();
    let corner = corners
        .iter()
        .zip(most_mpa)
        .filter_map(|(corner, mpa)| {
            let share = mpa? * Corner::Small.factor() / stands.whole_mpa(asked.often);
            Some(AtCorner { at: corner.at, share })
        })
        .max_by(|one, other| one.share.total_cmp(&other.share));
    seams.sort_by(|one, other| other.left_share().total_cmp(&one.left_share()));
    let Some(worst) = seams.first() else {
        return Err("No seam of this face is asked for anything by it.".to_owned());
    };
    // It is named where it carries more than a seam.
    let corner = corner.filter(|corner| corner.share > worst.left_share());
    let at_corner = corner.as_ref().map_or(0.0, |corner| corner.share);
    let whole_breaks = worst.whole_share.max(at_corner) > 1.0;
    // What a strap would mend; at a corner elsewhere it mends nothing.
    let margin = 1.0 / worst.left_share().max(worst.whole_share);
    let named = corner.as_ref().map(|corner| corner.words(&flat, plan.units));
    let say = |seam: &AtSeam| sentence(seam, &asked, plan.units);
    Ok(FaceLoad {
        sentence: say(worst),
        others: seams[1..].iter().map(say).collect(),
        weighed: weighed(&seams, at_corner),
        notes: named
            .into_iter()
            .chain(seams.iter().filter_map(strap_words))
            .chain(margin_notes(whole_breaks, margin))
            .collect(),
        not_in_it: "Flat, elastic, the face as drawn, walls to a tenth. Not in it: a corner that the seam itself lies \
                    in, bending out of the face, stress that was cast in, iron that is weaker than its kind."
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

/// An inner corner, and what of whole iron is used up there.
struct AtCorner {
    at: At,
    share: f64,
}

impl AtCorner {
    /// "The inner corner 350 mm from the left and 50 mm down carries more than a seam ..."
    fn words(&self, flat: &FlatFace<'_>, units: UnitSystem) -> String {
        let least = |of: fn(&At) -> f64| flat.piece.outline.iter().map(of).fold(f64::INFINITY, f64::min);
        let say = |mm: f64| units.say(mm, Unit::Millimetres);
        format!(
            "The inner corner {} from the left and {} down carries more than the seam: with a small radius, {} times, {} \
             of what whole iron stands is used up there.",
            say(self.at.x_mm - least(|at| at.x_mm)),
            say(self.at.y_mm - least(|at| at.y_mm)),
            number(Corner::Small.factor(), 1),
            used_words(self.share)
        )
    }
}

/// Ours: so many inner corners are looked at, those nearest to a seam.
const CORNERS_MOST: usize = 6;

fn corners_beside(plan: &Plan, flat: &FlatFace<'_>) -> Vec<InnerCorner> {
    let seams: Vec<&[At]> = seams_of(plan, flat).map(|(_, line)| line).collect();
    let off_mm = |corner: &InnerCorner| {
        let off = seams.iter().filter_map(|line| nearest(line, corner.at)).map(|near| near.distance_mm);
        off.fold(f64::INFINITY, f64::min)
    };
    let mut corners = flat.piece.inner_corners();
    corners.sort_by(|one, other| off_mm(one).total_cmp(&off_mm(other)));
    corners.truncate(CORNERS_MOST);
    corners
}

/// Ours: as much of what it stands may be used up before a strap, or another part, is spoken of; half of it is the margin
/// of two that is said plainly.
const MAY_USE: f64 = 0.5;

/// Mended, strapped or not at all, by the seam that is asked most in each.
fn weighed(seams: &[AtSeam], at_corner: f64) -> String {
    let most = |share: fn(&AtSeam) -> f64| seams.iter().map(share).fold(0.0, f64::max);
    let whole = most(|seam| seam.whole_share).max(at_corner);
    let mended = most(|seam| seam.joint_share);
    let strapped = most(|seam| seam.joint_share * (1.0 - seam.strap.map_or(0.0, |strap| strap.takes)));
    // As thin as the walls may be.
    let uses = |share: f64| share / (1.0 - WALLS);
    let carries = "By what it carries";
    if whole > 1.0 {
        return format!(
            "{carries} not for this load: whole it would not have stood it. The cause comes first."
        );
    }
    let both = match strapped < mended {
        true => format!("mended alone {} is used up, strapped {}", used_words(mended), used_words(strapped)),
        false => format!("mended {} is used up", used_words(mended)),
    };
    if uses(at_corner) > MAY_USE {
        format!(
            "{carries} less than half is left at an inner corner, whatever is done at the seam: {} is used up there. Take \
             the load off, or another part.",
            used_words(at_corner)
        )
    } else if mended < NOTHING {
        format!("{carries} mending alone: it asks next to nothing of a seam.")
    } else if uses(mended) <= MAY_USE {
        format!("{carries} mending alone leaves half or more: {} is used up.", used_words(mended))
    } else if uses(strapped) <= MAY_USE {
        format!("{carries} strap it: {both}.")
    } else if uses(strapped) <= 1.0 {
        format!("{carries} less than half is left either way: {both}. Take the load off, or another part.")
    } else {
        format!("{carries} don't mend it for this load: {both}.")
    }
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

/// House: so little that no load of its size is worth naming.
const NOTHING: f64 = 0.01;

/// "0.4 to 0.5", by what the walls are not known by.
fn used_words(share: f64) -> String {
    let used = |walls: f64| number(share / walls, if share < 0.1 { 2 } else { 1 });
    let (least, most) = (used(1.0 + WALLS), used(1.0 - WALLS));
    if least == most { most } else { format!("{least} to {most}") }
}

/// A mass as well as it is known: two figures of it, in the unit it is told in.
fn roughly(kg: f64, units: UnitSystem) -> String {
    /// Pounds in a kg, by definition.
    const LB_A_KG: f64 = 2.204_622_6;
    let a_kg = match units {
        UnitSystem::Metric => 1.0,
        UnitSystem::Imperial => LB_A_KG,
    };
    let told = (kg * a_kg).max(f64::MIN_POSITIVE);
    let step = 10_f64.powf(told.log10().floor() - 1.0);
    units.say_exactly((told / step).round() * step / a_kg, Unit::Kilograms)
}

fn sentence(seam: &AtSeam, inputs: &LoadInputs, units: UnitSystem) -> String {
    let hung = units.say_exactly(inputs.kg, Unit::Kilograms);
    let how = inputs.comes.words(units);
    let letter = &seam.letter;
    if seam.joint_share < NOTHING {
        return format!("Crack {letter}: {hung}, {how}, ask next to nothing of it.");
    }
    let kg = |share: f64| {
        let under = |walls: f64| roughly(inputs.kg / share * walls, units);
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

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn seam(whole_share: f64, joint_share: f64, takes: Option<f64>) -> AtSeam {
        let strap = takes.map(|takes| StrapOver { takes, chosen: false });
        AtSeam { letter: "A".to_owned(), whole_share, joint_share, strap }
    }

    #[rstest]
    // Hand-worked: walls a tenth thinner, 0.44 / 0.9 = 0.49, 0.46 / 0.9 = 0.51; strapped by half 0.23 / 0.9 = 0.26
    #[case::nothing(&[seam(0.001, 0.002, None)], "it asks next to nothing of a seam")]
    #[case::half_is_left(&[seam(0.2, 0.44, Some(0.5))], "mending alone leaves half or more: 0.4 to 0.5")]
    #[case::a_strap(&[seam(0.2, 0.46, Some(0.5))], "strap it: mended alone 0.4 to 0.5 is used up, strapped 0.2 to 0.3.")]
    #[case::no_strap(&[seam(0.2, 0.46, None)], "less than half is left either way: mended 0.4 to 0.5 is used up.")]
    #[case::not_enough_of_a_strap(&[seam(0.6, 1.1, Some(0.5))], "less than half is left either way")]
    #[case::no_use(&[seam(0.6, 0.95, Some(0.04))], "don't mend it for this load")]
    #[case::whole(&[seam(1.01, 1.2, Some(0.9))], "not for this load: whole it would not have stood it")]
    // The one that is strapped least counts, also where another is asked more without one.
    #[case::two(&[seam(0.2, 0.8, Some(0.6)), seam(0.2, 0.46, None)], "less than half is left either way: mended alone 0.7 to 0.9 is used up, strapped 0.4 to 0.5")]
    fn mended_strapped_or_not_at_all(#[case] seams: &[AtSeam], #[case] expected: &str) {
        let words = weighed(seams, 0.0);
        assert!(words.contains(expected), "{words}");
    }
}
