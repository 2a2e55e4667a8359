//! What each picture of a job proves, and which of them show the part before and after.

use serde::Serialize;
use uuid::Uuid;

use super::check::CheckLine;
use super::cracks::mark_name;
use super::looked::LINES;
use crate::casting::said::Shows;
use crate::field::picture;
use crate::job::{Job, Looked, Picture, Round, TorchEntry};
use crate::render::upper;

/// When a picture of the part was taken, seen from its repair.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PictureOf {
    Before,
    After,
    /// It shows one thing: what was found, a bead, a mark, how it holds.
    One,
}

/// A picture, as it stands on the record.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PictureLine {
    pub id: Uuid,
    /// What it proves, by its id; nothing where it shows the part.
    pub of: Option<Uuid>,
    pub shows: PictureOf,
    /// "Toes whole: A, second side", "Pores, bead 3", or as it was said of it.
    pub words: String,
}

/// What pictures are told by.
pub(crate) struct PicturesInputs<'a> {
    pub job: &'a Job,
    /// The list of the round in hand.
    pub check: &'a [CheckLine],
    /// "bead", "pin"
    pub piece: &'a str,
}

impl PicturesInputs<'_> {
    /// Every picture, in the order taken.
    pub fn lines(&self) -> Vec<PictureLine> {
        self.job.pictures.iter().map(|picture| self.line(picture)).collect()
    }

    fn line(&self, picture: &Picture) -> PictureLine {
        let round = self.job.round();
        let said = round.get(picture::SHOWS.of(picture.id));
        let caption = round.get(picture::CAPTION.of(picture.id)).map(str::to_owned);
        let proves = picture.of.and_then(|of| self.thing(of));
        let label = said.map(|it| it.label().to_owned());
        let words = match (caption, proves) {
            (Some(caption), Some(proves)) => format!("{proves}: {caption}"),
            (caption, proves) => caption.or(proves).or(label).unwrap_or_else(|| "A picture".to_owned()),
        };
        PictureLine { id: picture.id, of: picture.of, shows: self.shows(picture, said), words }
    }

    /// What it was said to show; else it shows the part as it was before it was lit first, or after.
    fn shows(&self, picture: &Picture, said: Option<Shows>) -> PictureOf {
        let lit = self.job.heats().map(|heat| heat.lit.at_ms).min();
        match said {
            _ if picture.of.is_some() => PictureOf::One,
            Some(Shows::Before) => PictureOf::Before,
            Some(Shows::After) => PictureOf::After,
            Some(Shows::Mark) => PictureOf::One,
            _ if lit.is_some_and(|lit_ms| picture.at_ms > lit_ms) => PictureOf::After,
            _ => PictureOf::Before,
        }
    }

    /// What it proves, in words; nothing where that was crossed out, or never came.
    fn thing(&self, of: Uuid) -> Option<String> {
        let rounds = || self.job.rounds.iter().rev();
        rounds()
            .find_map(|round| round.looked.iter().find(|it| it.fact == of))
            .map(|look| self.look(look))
            .or_else(|| rounds().find_map(|round| self.at_the_torch(round, of)))
            .or_else(|| {
                let followed = rounds().find_map(|round| round.followed.iter().find(|it| it.fact == of))?;
                Some(format!("How it holds: {}", followed.became.label().to_lowercase()))
            })
            .or_else(|| {
                let mark = rounds().find_map(|round| round.marks.iter().find(|it| it.id == of))?;
                Some(mark_name(self.job.round(), mark))
            })
            .or_else(|| {
                let crack = rounds().find_map(|round| round.cracks.iter().find(|it| it.id == of))?;
                Some(format!("Crack {}", crack.letter))
            })
    }

    /// "Toes whole, A, second side: Pores, pinholes"
    fn look(&self, look: &Looked) -> String {
        let of_place = |line: &CheckLine| {
            let place = line.places.iter().find(|it| it.place == look.place)?;
            Some(format!("{}, {}", line.label, place.words))
        };
        let label = || LINES.into_iter().find(|(what, ..)| *what == look.place.what).map(|(.., label)| label);
        let place = self.check.iter().find_map(of_place).or_else(|| label().map(str::to_owned));
        format!("{}: {}", place.unwrap_or_default(), look.found.words().to_lowercase())
    }

    /// "Bead 3", "Pores, bead 3"
    fn at_the_torch(&self, round: &Round, of: Uuid) -> Option<String> {
        let mut pieces = 0;
        for (_, entry) in round.said_at_torch() {
            let piece = matches!(entry.entry, TorchEntry::Bead { .. } | TorchEntry::Pin { .. });
            pieces += usize::from(piece);
            if entry.fact != of {
                continue;
            }
            // Several that were said at once.
            let with_it = round.said_at_torch().filter(|(_, it)| it.fact == of && it.is_piece()).count();
            let at = match with_it {
                0 | 1 => format!("{} {pieces}", self.piece),
                all => format!("{}s {pieces} to {}", self.piece, pieces + all - 1),
            };
            return Some(match &entry.entry {
                TorchEntry::Trouble { seen, .. } if pieces == 0 => seen.words().to_owned(),
                TorchEntry::Trouble { seen, .. } => format!("{}, {at}", seen.words()),
                _ if piece => upper(&at),
                _ => "At the torch".to_owned(),
            });
        }
        None
    }
}
