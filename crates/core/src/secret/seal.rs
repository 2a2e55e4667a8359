//! A truth under its seal: nobody reads it in passing. It is no lock, and says so.

use super::Truth;
use super::draw::{hash, mixed};

/// A seal that is not whole.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Broken;

impl Broken {
    #[must_use]
    pub fn words(self) -> &'static str {
        "the seal is not whole: a letter of it is missing or was changed"
    }
}

/// Ours, any number: it is no secret, it only keeps the truth from being read in passing.
const COVER: u64 = 0x5ea1_0f1c_a57b_0117;

fn covered(bytes: impl IntoIterator<Item = u8>) -> Vec<u8> {
    let cover = |at: usize| mixed(COVER.wrapping_add(at as u64)).to_le_bytes()[0];
    bytes.into_iter().enumerate().map(|(at, byte)| byte ^ cover(at)).collect()
}

/// The truth as it goes into a log or a file: the bytes of its JSON, each XORed with a byte that depends on its place
/// alone, then eight bytes of FNV-1a over that JSON, all as hexadecimal.
#[must_use]
pub fn seal(truth: &Truth) -> String {
    let plain = serde_json::to_vec(truth).expect("numbers and words can be written");
    let check = hash(plain.iter().copied()).to_le_bytes();
    covered(plain.into_iter().chain(check)).iter().map(|byte| format!("{byte:02x}")).collect()
}

/// FNV-1a over a text, 64 bits: names a seal, guards nothing.
#[must_use]
pub fn digest(text: &str) -> u64 {
    hash(text.bytes())
}

/// What is under a seal.
///
/// # Errors
/// [`Broken`]: it is not whole, or what is in it cannot be.
pub fn open(sealed: &str) -> Result<Truth, Broken> {
    /// House: no truth is longer, in bytes.
    const MOST: usize = 20_000;
    let sealed = sealed.trim();
    if !sealed.is_ascii() || !sealed.len().is_multiple_of(2) || sealed.len() > MOST {
        return Err(Broken);
    }
    let byte = |at: usize| u8::from_str_radix(&sealed[at..at + 2], 16).map_err(|_| Broken);
    let bytes: Vec<u8> = (0..sealed.len()).step_by(2).map(byte).collect::<Result<_, _>>()?;
    let whole = covered(bytes);
    let (plain, check) = whole.split_at(whole.len().checked_sub(8).ok_or(Broken)?);
    if hash(plain.iter().copied()).to_le_bytes() != check {
        return Err(Broken);
    }
    let truth: Truth = serde_json::from_slice(plain).map_err(|_| Broken)?;
    truth.possible().map(|()| truth).map_err(|_| Broken)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::iron::Iron;

    fn truth() -> Truth {
        Truth {
            iron: Iron::Malleable,
            cracks: vec![crate::secret::TrueCrack { length_mm: 66.0, beyond: [0.4, -1.1] }],
            oil: true,
            locked_in: false,
            old_bronze: false,
            hidden: None,
            service_c: Some(550.0),
            power: 0.93,
            packing: 1.02,
            sweep: 1.1,
            left_alone: 0.2,
        }
    }

    #[test]
    fn what_was_sealed_comes_out_again_and_is_not_read_in_passing() {
        let sealed = seal(&truth());
        assert_eq!(open(&sealed), Ok(truth()));
        assert_eq!(open(&format!("  {sealed}\n")), Ok(truth()));
        assert!(!sealed.contains("malleable") && sealed.chars().all(|c| c.is_ascii_hexdigit()));
    }

    #[rstest]
    #[case::empty("")]
    #[case::odd("abc")]
    #[case::no_letters_of_it("zz")]
    #[case::words("mälleable")]
    #[case::too_short("00")]
    fn what_is_no_seal_is_told(#[case] sealed: &str) {
        assert_eq!(open(sealed), Err(Broken));
    }

    #[test]
    fn a_changed_letter_breaks_it_wherever_it_is() {
        let sealed = seal(&truth());
        for at in 0..sealed.len() {
            let mut letters: Vec<char> = sealed.chars().collect();
            letters[at] = if letters[at] == '0' { '1' } else { '0' };
            assert_eq!(open(&letters.iter().collect::<String>()), Err(Broken), "{at}");
        }
        assert_eq!(open(&sealed[..sealed.len() - 2]), Err(Broken));
    }

    #[rstest]
    #[case::power(Truth { power: 2.0, ..truth() })]
    #[case::tip(Truth { cracks: vec![crate::secret::TrueCrack { length_mm: 9.0, beyond: [9.0, 0.0] }], ..truth() })]
    #[case::alone(Truth { left_alone: 1.5, ..truth() })]
    #[case::service(Truth { service_c: Some(5_000.0), ..truth() })]
    #[case::hidden(Truth { hidden: Some(crate::secret::Hidden { length_mm: 0.0, wall_mm: 9.0 }), ..truth() })]
    fn a_truth_that_cannot_be_is_no_truth(#[case] truth: Truth) {
        assert_eq!(open(&seal(&truth)), Err(Broken));
    }
}
