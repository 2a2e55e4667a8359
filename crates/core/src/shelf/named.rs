//! What a rod without a name is, by look, magnet, file, spark and a trial bead.

pub const LOOKS: &[(&str, &str)] = &[
    ("yellow", "Yellow"),
    ("red", "Copper-red"),
    ("pale", "Pale, silvery"),
    ("gray", "Gray"),
    ("coated", "Coated all over"),
];
pub const MAGNETS: &[(&str, &str)] =
    &[("none", "Does not hold"), ("weak", "Hardly holds"), ("strong", "Holds hard")];
pub const FILES: &[(&str, &str)] = &[("soft", "Soft"), ("hard", "Hard"), ("snaps", "Snaps")];
pub const SPARKS: &[(&str, &str)] = &[("none", "None"), ("short", "Few, short"), ("long", "Long, bright")];
pub const BEADS: &[(&str, &str)] =
    &[("yellow", "Runs yellow"), ("soft", "Files soft"), ("hard", "A file skates")];

/// What was seen of it, each nothing while not tried.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Signs<'a> {
    pub look: Option<&'a str>,
    pub magnet: Option<&'a str>,
    pub filed: Option<&'a str>,
    pub spark: Option<&'a str>,
    pub bead: Option<&'a str>,
}

/// A kind, and what is seen of it: any of these.
struct Known {
    kind: &'static str,
    look: &'static [&'static str],
    magnet: &'static [&'static str],
    filed: &'static [&'static str],
    spark: &'static [&'static str],
    bead: &'static [&'static str],
}

/// # Source
/// House.
const KNOWN: &[Known] = &[
    Known {
        kind: "bronze",
        look: &["yellow", "coated"],
        magnet: &["none"],
        filed: &["soft"],
        spark: &["none"],
        bead: &["yellow", "soft"],
    },
    Known {
        kind: "silicon_rod",
        look: &["red"],
        magnet: &["none"],
        filed: &["soft"],
        spark: &["none"],
        bead: &["yellow", "soft"],
    },
    Known {
        kind: "nickel",
        look: &["pale", "coated"],
        magnet: &["none", "weak"],
        filed: &["soft"],
        spark: &["none", "short"],
        bead: &["soft"],
    },
    Known {
        kind: "steel_stick",
        look: &["gray", "coated"],
        magnet: &["strong"],
        filed: &["soft", "hard"],
        spark: &["long"],
        bead: &["hard"],
    },
    Known {
        kind: "iron_rod",
        look: &["gray", "coated"],
        magnet: &["strong"],
        filed: &["snaps", "hard"],
        spark: &["short"],
        bead: &["soft", "hard"],
    },
];

/// Ours: fewer things seen name nothing.
const LEAST_SEEN: usize = 3;

/// What it could be, and whether that is enough to name it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct CouldBe {
    /// Kinds that go with all that was seen.
    pub kinds: Vec<&'static str>,
    /// How many things were seen.
    pub seen: usize,
}

impl CouldBe {
    /// What it is; nothing while more than one would do, or too little was seen.
    #[must_use]
    pub fn named(&self) -> Option<&'static str> {
        match self.kinds[..] {
            [only] if self.seen >= LEAST_SEEN => Some(only),
            _ => None,
        }
    }
}

/// What goes with all that was seen.
///
/// # Source
/// House.
#[must_use]
pub fn could_be(signs: Signs<'_>) -> CouldBe {
    let goes = |seen: Option<&str>, with: &[&str]| seen.is_none_or(|seen| with.contains(&seen));
    let kinds = KNOWN.iter().filter(|known| {
        goes(signs.look, known.look)
            && goes(signs.magnet, known.magnet)
            && goes(signs.filed, known.filed)
            && goes(signs.spark, known.spark)
            && goes(signs.bead, known.bead)
    });
    let seen = [signs.look, signs.magnet, signs.filed, signs.spark, signs.bead];
    CouldBe { kinds: kinds.map(|known| known.kind).collect(), seen: seen.iter().flatten().count() }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn signs<'a>(look: &'a str, magnet: &'a str, filed: &'a str, spark: &'a str) -> Signs<'a> {
        Signs { look: Some(look), magnet: Some(magnet), filed: Some(filed), spark: Some(spark), bead: None }
    }

    #[rstest]
    #[case::bronze(signs("yellow", "none", "soft", "none"), "bronze")]
    #[case::nickel(signs("pale", "weak", "soft", "short"), "nickel")]
    #[case::steel(signs("coated", "strong", "soft", "long"), "steel_stick")]
    #[case::iron(signs("gray", "strong", "snaps", "short"), "iron_rod")]
    fn a_rod_is_told_by_what_is_seen(#[case] seen: Signs<'_>, #[case] kind: &str) {
        assert_eq!(could_be(seen).named(), Some(kind));
    }

    #[test]
    fn two_signs_name_nothing_and_signs_that_do_not_go_together_neither() {
        let two = Signs { look: Some("yellow"), magnet: Some("none"), ..Signs::default() };
        assert_eq!((could_be(two).kinds, could_be(two).named()), (vec!["bronze"], None));
        assert!(could_be(signs("yellow", "strong", "soft", "none")).kinds.is_empty());
        assert_eq!(could_be(Signs::default()).kinds.len(), KNOWN.len(), "nothing seen leaves all");
    }

    #[test]
    fn what_is_chosen_is_what_is_known() {
        for (choices, of) in [
            (LOOKS, KNOWN.iter().map(|k| k.look).collect::<Vec<_>>()),
            (MAGNETS, KNOWN.iter().map(|k| k.magnet).collect()),
            (FILES, KNOWN.iter().map(|k| k.filed).collect()),
            (SPARKS, KNOWN.iter().map(|k| k.spark).collect()),
            (BEADS, KNOWN.iter().map(|k| k.bead).collect()),
        ] {
            for id in of.into_iter().flatten() {
                assert!(choices.iter().any(|(known, _)| known == id), "{id}");
            }
        }
    }
}
