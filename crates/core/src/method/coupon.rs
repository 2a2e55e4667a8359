//! Coupons that were broken on this shop's bench.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{MethodId, School};
use crate::base::problem::FieldProblem;
use crate::iron::{Iron, TypedValues};
use crate::quantity::{Kind, UnitSystem, parse};

/// How it was bent.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Bent {
    /// One end held fast, the load at the end of a lever.
    Lever,
    /// On two supports, the load in the middle of the span.
    Span,
}

/// Where it broke.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BrokeAt {
    Filler,
    Toe,
    Edge,
    /// Away from the joint: the joint is at least as strong.
    Casting,
}

impl BrokeAt {
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Filler => "in the filler",
            Self::Toe => "at the toe",
            Self::Edge => "at the fused edge",
            Self::Casting => "in the casting",
        }
    }
}

/// What was understood of what was typed.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CouponRead {
    pub width_mm: f64,
    pub thickness_mm: f64,
    /// Lever or span.
    pub lever_mm: f64,
    /// What hung on it when it broke.
    pub load_kg: f64,
    /// The last step of the load that it still stood; nothing where only the last was said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stood_kg: Option<f64>,
    /// What was thought before.
    pub guess_kg: Option<f64>,
}

/// A coupon as it was broken. Whatever stands in it again under its id takes its place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Coupon {
    pub coupon: Uuid,
    pub name: String,
    pub iron: Iron,
    /// Nothing for one that was left whole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub joined: Option<MethodId>,
    /// How warm it was joined, where that was said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub school: Option<School>,
    pub bent: Bent,
    pub broke: BrokeAt,
    /// `width`, `thickness`, `lever`, `load`, `guess`, as typed; of the load also its steps, "20, 30, 40 kg".
    pub typed: TypedValues,
    pub shown_in: UnitSystem,
    /// Filled in by the server.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub read: Option<CouponRead>,
}

/// Standard gravity in m/s², by definition.
const GRAVITY: f64 = 9.806_65;
/// House: letters of what it is called.
const NAME_MOST: usize = 80;

impl Coupon {
    /// The same with what is understood of what was typed.
    ///
    /// # Errors
    /// The problem, at the name of what was typed.
    pub fn understood(self) -> Result<Self, FieldProblem> {
        if self.name.trim().is_empty() || self.name.chars().count() > NAME_MOST {
            return Err(FieldProblem::new("name", "say which it is", "Bar 3, old bed"));
        }
        let amount = |name: &str, kind: Kind, (least, most): (f64, f64), right: &str| {
            let typed = self.typed.get(name).map_or("", String::as_str);
            let read = parse(typed, kind, self.shown_in)
                .map_err(|none| FieldProblem::new(name, none.to_string(), right))?;
            if read.value < least || read.value > most {
                return Err(FieldProblem::new(name, "no coupon is like that", right));
            }
            Ok(read.value)
        };
        let (mm, kg) = match self.shown_in {
            UnitSystem::Imperial => ("3/4 in", "130 lb"),
            UnitSystem::Metric => ("20 mm", "60 kg"),
        };
        let guessed = self.typed.get("guess").is_some_and(|typed| !typed.trim().is_empty());
        let width_mm = amount("width", Kind::Length, (1.0, 500.0), mm)?;
        let thickness_mm = amount("thickness", Kind::Length, (1.0, 200.0), mm)?;
        let lever_mm = amount("lever", Kind::Length, (5.0, 3_000.0), mm)?;
        let (stood_kg, load_kg) = self.load_steps(kg)?;
        let read = CouponRead {
            width_mm,
            thickness_mm,
            lever_mm,
            load_kg,
            stood_kg,
            guess_kg: if guessed { Some(amount("guess", Kind::Mass, (0.1, 100_000.0), kg)?) } else { None },
        };
        Ok(Self { read: Some(read), ..self })
    }

    /// The last step but one, and that under which it broke, in kg.
    fn load_steps(&self, right: &str) -> Result<(Option<f64>, f64), FieldProblem> {
        let typed = self.typed.get("load").map_or("", String::as_str);
        let wrong = |words: String| FieldProblem::new("load", words, right);
        // A comma before a blank parts steps, one within a number does not; the unit may stand once, at the end.
        let parts: Vec<&str> = typed.split(", ").flat_map(|part| part.split(';')).map(str::trim).collect();
        let unit = parts.last().map_or("", |last| last.trim_start_matches(|c: char| !c.is_alphabetic()));
        let mut steps: Vec<f64> = Vec::new();
        for part in parts {
            let bare = !part.chars().any(char::is_alphabetic) && !unit.is_empty();
            let part = if bare { format!("{part} {unit}") } else { part.to_owned() };
            let kg = parse(&part, Kind::Mass, self.shown_in).map_err(|none| wrong(none.to_string()))?.value;
            if !(0.1..=100_000.0).contains(&kg) {
                return Err(wrong("no coupon is like that".to_owned()));
            }
            if steps.last().is_some_and(|before| kg <= *before) {
                return Err(wrong("each step is more than the one before".to_owned()));
            }
            steps.push(kg);
        }
        let load_kg = steps.pop().ok_or_else(|| wrong("nothing was typed".to_owned()))?;
        Ok((steps.pop(), load_kg))
    }

    /// What its outer fibre stood, in MPa; nothing while it was not understood.
    ///
    /// # Source
    /// Elastic bending of a rectangle: 6 F L / (b t²) at a lever, 3 F L / (2 b t²) on a span.
    #[must_use]
    pub fn stood_mpa(&self) -> Option<f64> {
        let read = self.read?;
        let moment = read.load_kg * GRAVITY * read.lever_mm;
        let section = read.width_mm * read.thickness_mm.powi(2);
        Some(match self.bent {
            Bent::Lever => 6.0 * moment / section,
            Bent::Span => 3.0 * moment / (2.0 * section),
        })
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn coupon(typed: &[(&str, &str)]) -> Coupon {
        Coupon {
            coupon: Uuid::nil(),
            name: "Bar 3".to_owned(),
            iron: Iron::Gray,
            joined: Some(MethodId::TorchBraze),
            school: None,
            bent: Bent::Lever,
            broke: BrokeAt::Filler,
            typed: typed.iter().map(|(name, typed)| ((*name).to_owned(), (*typed).to_owned())).collect(),
            shown_in: UnitSystem::Metric,
            read: None,
        }
    }

    const BAR: [(&str, &str); 4] =
        [("width", "20"), ("thickness", "12 mm"), ("lever", "150"), ("load", "40 kg")];

    /// By hand: 40 kg is 392.27 N; 6 × 392.27 × 150 / (20 × 144) = 122.6 MPa. On a span of 150 a quarter of it.
    #[test]
    fn what_it_stood_is_the_bending_of_its_section() {
        let bar = coupon(&BAR).understood().unwrap();
        assert!((bar.stood_mpa().unwrap() - 122.583).abs() < 0.01, "{:?}", bar.stood_mpa());
        let span = Coupon { bent: Bent::Span, ..bar };
        assert!((span.stood_mpa().unwrap() - 122.583 / 4.0).abs() < 0.01);
        assert_eq!(coupon(&BAR).stood_mpa(), None);
    }

    #[rstest]
    #[case::one("40 kg", Some((None, 40.0)))]
    #[case::steps("20, 30, 40 kg", Some((Some(30.0), 40.0)))]
    #[case::each_with_its_unit("20 kg; 35 kg", Some((Some(20.0), 35.0)))]
    #[case::a_comma_in_a_number("37,5 kg", Some((None, 37.5)))]
    #[case::less_than_before("40, 30 kg", None)]
    #[case::nothing("", None)]
    #[case::words("a lot", None)]
    fn the_load_goes_up_step_by_step(#[case] load: &str, #[case] expected: Option<(Option<f64>, f64)>) {
        let typed = [BAR[0], BAR[1], BAR[2], ("load", load)];
        let read = coupon(&typed).understood();
        let steps = read.as_ref().ok().and_then(|it| it.read).map(|read| (read.stood_kg, read.load_kg));
        assert_eq!(steps, expected);
        assert_eq!(read.err().map(|problem| problem.field), expected.is_none().then(|| "load".to_owned()));
    }

    #[test]
    fn inches_and_pounds_are_the_same_bar() {
        let typed = [("width", "0.7874"), ("thickness", "0.4724"), ("lever", "5.9055"), ("load", "88.185")];
        let bar = Coupon { shown_in: UnitSystem::Imperial, ..coupon(&typed) }.understood().unwrap();
        assert!((bar.stood_mpa().unwrap() - 122.583).abs() < 0.1);
    }

    #[rstest]
    #[case::no_width(&[("width", ""), ("thickness", "12"), ("lever", "150"), ("load", "40")], "width")]
    #[case::no_thickness(&[("width", "20"), ("thickness", "thick"), ("lever", "150"), ("load", "40")], "thickness")]
    #[case::a_lever_of_a_mile(&[("width", "20"), ("thickness", "12"), ("lever", "1600 m"), ("load", "40")], "lever")]
    #[case::no_load(&[("width", "20"), ("thickness", "12"), ("lever", "150"), ("load", "0")], "load")]
    #[case::a_guess_that_is_none(
        &[("width", "20"), ("thickness", "12"), ("lever", "150"), ("load", "40"), ("guess", "much")], "guess")]
    fn what_cannot_be_is_told_at_its_field(#[case] typed: &[(&str, &str)], #[case] field: &str) {
        assert_eq!(coupon(typed).understood().unwrap_err().field, field);
    }
}
