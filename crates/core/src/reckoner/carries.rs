//! What a mended arm carries.

use super::metal::{IRON, iron};
use super::{
    Answer, Blank, Calculation, Filled,
    SentencePart::{Answer as Said, Ask, Words},
};
use crate::base::problem::FieldProblem;
use crate::body::{Corner, GRAVITY, Load, Section, Shock, Stands, margin_notes, strength};
use crate::figure::{Certainty, Figure, Source};
use crate::quantity::{Kind, Unit, number};
use crate::shop::Shop;

const WIDE: Blank = Blank::amount("wide", "Wide", Kind::Length, (1.0, 1000.0), ("18 mm", "3/4 in"));
const DEEP: Blank =
    Blank::amount("deep", "Deep, along the bending", Kind::Length, (1.0, 1000.0), ("60 mm", "2 1/2 in"));
const HUNG: Blank = Blank::amount("hung", "Hung on it", Kind::Mass, (0.1, 50_000.0), ("60 kg", "130 lb"));
const OUT: Blank = Blank::amount("out", "So far out", Kind::Length, (1.0, 10_000.0), ("220 mm", "9 in"));
const HOW: Blank = Blank::one_of("how", "How it lies there", Shock::CHOICES);
const CORNER: Blank = Blank::one_of(
    "corner",
    "At the joint there is",
    &[
        ("small", "a small corner"),
        ("none", "no corner"),
        ("generous", "a generous radius"),
        ("sharp", "a sharp corner"),
    ],
);
const OFTEN: Blank =
    Blank::one_of("often", "How often", &[("seldom", "seldom"), ("often", "more than 10,000 times")]);
const JOINT: Blank =
    Blank::amount("joint", "Of whole iron, the joint stands", Kind::Percent, (5.0, 100.0), ("80 %", "80 %"));

pub(super) const ARM: Calculation = Calculation {
    id: "arm",
    name: "What a mended arm carries",
    found_by: "load strength lever bracket hang weight break how much will it hold strap margin",
    sentence: &[
        Words("An arm of"),
        Ask(&IRON),
        Ask(&WIDE),
        Words("wide and"),
        Ask(&DEEP),
        Words("deep, with"),
        Ask(&HUNG),
        Words("hung"),
        Ask(&OUT),
        Words("out,"),
        Ask(&HOW),
        Words(","),
        Ask(&OFTEN),
        Words(", at"),
        Ask(&CORNER),
        Words(", mended so that the joint stands"),
        Ask(&JOINT),
        Words("of whole iron: whole it breaks under"),
        Said("whole"),
        Words(", mended under"),
        Said("mended"),
        Words("; of what the joint stands"),
        Said("used"),
        Words("is used up."),
    ],
    work: arm,
    fact: None,
};

fn arm(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let (wide, deep) = (filled.amount(&WIDE), filled.amount(&DEEP));
    let hung_kg = filled.amount(&HUNG);
    let shock = Shock::from_id(filled.choice(&HOW)).unwrap_or(Shock::Knocked);
    let corner = Corner::from_id(filled.choice(&CORNER)).unwrap_or(Corner::Sharp);
    let load = Load {
        bend_n: hung_kg * GRAVITY,
        arm_mm: filled.amount(&OUT),
        pull_n: 0.0,
        twist_nm: 0.0,
        pressure_bar: 0.0,
        seam_along: false,
        shock,
        corner,
        corner_at_joint: true,
        often: filled.choice(&OFTEN) == "often",
        joined_share: 1.0,
    };
    let stands = Stands::of(iron(filled), filled.amount(&JOINT) / 100.0);
    let section = Section::Rectangle { width_mm: wide, depth_mm: deep };
    let found = strength(section, &load, stands);
    // Something hangs on it: it breaks under so much.
    let (Some(whole_n), Some(mended_n)) = (found.whole_breaks_at, found.mended_breaks_at) else {
        return Err(FieldProblem::new(HUNG.key, "nothing hangs on it", "60 kg"));
    };
    let worked = |figure: Figure| {
        figure
            .formula(format!(
                "{} N × {} mm ÷ ({} × {}² ÷ 6 mm³) × {} for how it comes × {} for the corner = {} MPa",
                number(load.bend_n, 0),
                number(load.arm_mm, 0),
                number(wide, 1),
                number(deep, 1),
                number(shock.factor(), 1),
                number(corner.factor(), 1),
                number(found.stress_mpa, 1)
            ))
            .formula(format!(
                "whole it stands {} MPa, the joint {} of it",
                number(found.stress_mpa / found.whole_share, 0),
                number(found.whole_share / found.joint_share, 2)
            ))
            .source(Source::House, Certainty::Estimate)
    };
    let kg = |n: f64| n / GRAVITY;
    let mended_kg = kg(mended_n.min(whole_n));
    let mut answer = Answer {
        figures: vec![
            worked(Figure::new("whole", "Whole it breaks under", kg(whole_n), Unit::Kilograms)),
            worked(Figure::new("mended", "Mended it breaks under", mended_kg, Unit::Kilograms)),
            worked(
                Figure::new(
                    "used",
                    "Used up",
                    found.joint_share.max(found.whole_share) * 100.0,
                    Unit::Percent,
                )
                .because("Of what the joint stands, by the load that is said."),
            ),
        ],
        ..Answer::default()
    };
    answer.notes = margin_notes(found.whole_share > 1.0, mended_kg / hung_kg);
    Ok(answer)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use crate::quantity::UnitSystem;
    use crate::reckoner::{calculation, reckoned};

    fn value(typed: &[(&str, &str)], id: &str) -> f64 {
        let arm = calculation("arm").unwrap();
        let found = reckoned(arm, typed, UnitSystem::Metric).unwrap();
        found.figures.iter().find(|figure| figure.id == id).unwrap().value
    }

    #[rstest]
    // 60 x 9.81 x 220 / (18 x 60² / 6) = 11.99 MPa x 1.8 = 21.58; 200 / 21.58 x 60 = 556 kg
    #[case::lying_still(&[], 556.0, 445.0)]
    // x 2
    #[case::with_knocks(&[("how", "knocked")], 278.0, 222.4)]
    // Whole 0.4, the joint 0.6 of that
    #[case::often(&[("often", "often")], 222.4, 106.8)]
    fn an_arm_breaks_where_its_section_says(
        #[case] typed: &[(&str, &str)],
        #[case] whole: f64,
        #[case] mended: f64,
    ) {
        assert!((value(typed, "whole") / whole - 1.0).abs() < 0.002, "{}", value(typed, "whole"));
        assert!((value(typed, "mended") / mended - 1.0).abs() < 0.002, "{}", value(typed, "mended"));
    }

    #[test]
    fn what_is_asked_of_it_is_said_plainly() {
        let arm = calculation("arm").unwrap();
        let notes =
            |typed: &[(&str, &str)]| reckoned(arm, typed, UnitSystem::Metric).unwrap().notes.join(" ");
        assert!(!notes(&[]).contains("strap it"), "{}", notes(&[]));
        assert!(notes(&[("hung", "300 kg")]).contains("strap it"));
        assert!(notes(&[("hung", "900 kg")]).contains("Find the cause first"));
        assert!(notes(&[]).contains("somebody who answers for it"));
    }
}
