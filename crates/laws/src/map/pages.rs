//! A drawing on paper at 1:1, over as many pages as it takes, each with a ruler that proves its scale.

use super::drawing::escaped;
use super::{At, Drawing};

/// House: what is drawn on of a page, in mm: it lies within both A4 and Letter with 12 mm of room round it.
pub const PAGE_MM: (f64, f64) = (186.0, 238.0);
/// House: under it the ruler and the words that say which page it is.
const FOOT_MM: f64 = 15.0;
/// House: so much of a page is on the next one too: it is glued there.
pub const OVERLAP_MM: f64 = 10.0;
/// Pages of one face. Ours: a face of 20 m takes some thousand, and nobody glues them.
const PAGES_MOST: usize = 400;

/// The name of the whole drawing, in a document that shows its pages.
const WHOLE: &str = "whole";

/// A drawing laid out.
#[derive(Debug, Clone, PartialEq)]
pub struct Pages {
    /// The drawing itself, once: an SVG without a size, that each page shows a part of.
    pub whole: String,
    pub pages: Vec<Page>,
}

/// One page.
#[derive(Debug, Clone, PartialEq)]
pub struct Page {
    /// From 1, downward and across.
    pub row: usize,
    pub column: usize,
    /// Upper left corner of what it shows, in mm on the face.
    pub from: At,
    pub svg: String,
}

impl Drawing {
    /// The pages it takes, row by row; nothing where it takes more than can be glued.
    #[must_use]
    pub fn pages(&self) -> Option<Pages> {
        let (left, top, right, bottom) = self.frame();
        let count = |long: f64, page: f64| {
            (((long - page) / (page - OVERLAP_MM) - 1e-9).ceil().max(0.0) as usize).saturating_add(1)
        };
        let (columns, rows) = (count(right - left, PAGE_MM.0), count(bottom - top, PAGE_MM.1));
        if columns.saturating_mul(rows) > PAGES_MOST {
            return None;
        }
        let place = |row: usize, column: usize| {
            At::new(
                left + column as f64 * (PAGE_MM.0 - OVERLAP_MM),
                top + row as f64 * (PAGE_MM.1 - OVERLAP_MM),
            )
        };
        let pages = (0..rows)
            .flat_map(|row| (0..columns).map(move |column| (row, column)))
            .map(|(row, column)| {
                let from = place(row, column);
                let which = if rows * columns == 1 {
                    "one page".to_owned()
                } else {
                    format!("row {} of {rows}, page {} of {columns}", row + 1, column + 1)
                };
                let svg = self.page(from, &which);
                Page { row: row + 1, column: column + 1, from, svg }
            })
            .collect();
        let whole = format!(
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"0\" height=\"0\" style=\"position:absolute\">\
             <g id=\"{WHOLE}\">{}</g></svg>",
            self.strokes()
        );
        Some(Pages { whole, pages })
    }

    fn page(&self, from: At, which: &str) -> String {
        let ((wide, high), title) = (PAGE_MM, escaped(&self.title));
        let ticks: String = (0..=10)
            .map(|tick| {
                let (x, up) = (tick * 10, if tick % 5 == 0 { 5 } else { 3 });
                format!("M{x} {:.1}v-{up}", high + 9.0)
            })
            .collect();
        // Marks at the corners: page is laid on page by them.
        let o = OVERLAP_MM;
        let corners: String = [(o, o), (wide - o, o), (o, high - o), (wide - o, high - o)]
            .map(|(x, y)| format!("M{:.1} {y:.1}h6M{x:.1} {:.1}v6", x - 3.0, y - 3.0))
            .concat();
        format!(
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{wide}mm\" height=\"{tall}mm\" \
             viewBox=\"0 0 {wide} {tall}\"><svg x=\"0\" y=\"0\" width=\"{wide}\" height=\"{high}\" \
             viewBox=\"{left:.3} {top:.3} {wide} {high}\"><use href=\"#{WHOLE}\"/></svg>\
             <g fill=\"none\" stroke=\"#000\" stroke-width=\"0.2\"><path d=\"M0 0H{wide}V{high}H0Z\" \
             stroke=\"#999\"/><path d=\"{corners}\" stroke=\"#777\"/>\
             <path d=\"M0 {foot:.1}h100{ticks}\" stroke-width=\"0.3\"/></g>\
             <g font-family=\"sans-serif\" font-size=\"3.4\"><text x=\"0\" y=\"{words:.1}\">100 mm: measure it, \
             then the rest is to scale</text><text x=\"{wide}\" y=\"{foot:.1}\" text-anchor=\"end\">{title}</text>\
             <text x=\"{wide}\" y=\"{words:.1}\" text-anchor=\"end\">{which}</text></g></svg>",
            tall = high + FOOT_MM,
            left = from.x_mm,
            top = from.y_mm,
            foot = high + 9.0,
            words = high + 13.5,
        )
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;
    use crate::map::{Layer, Stroke};

    fn across(wide: f64, high: f64) -> Drawing {
        let points = vec![At::new(0.0, 0.0), At::new(wide, high)];
        let strokes = vec![Stroke::Line { points, closed: false }];
        let layer = Layer { name: "CRACKS", width_mm: 0.5, dashes_mm: None, strokes };
        Drawing { title: "Lever & plate".to_owned(), layers: vec![layer] }
    }

    #[rstest]
    // Hand-worked: 10 mm of room on each side; a page more for each 176 mm across or 228 mm down
    #[case::one(166.0, 218.0, 1)]
    #[case::just_wider(166.5, 218.0, 2)]
    #[case::both_ways(342.0, 446.0, 4)]
    #[case::just_over_both_ways(343.0, 447.0, 9)]
    fn a_larger_face_takes_more_pages(#[case] wide: f64, #[case] high: f64, #[case] pages: usize) {
        assert_eq!(across(wide, high).pages().map(|it| it.pages.len()), Some(pages));
    }

    #[test]
    fn each_page_is_at_full_size_with_its_ruler() {
        let laid = across(400.0, 300.0).pages().unwrap();
        assert!(laid.whole.contains("id=\"whole\"") && laid.whole.contains("CRACKS"), "{}", laid.whole);
        for page in laid.pages {
            assert!(
                page.svg.contains("<use href=\"#whole\"/>") && !page.svg.contains("CRACKS"),
                "it is there once"
            );
            assert!(page.svg.contains("width=\"186mm\" height=\"253mm\" viewBox=\"0 0 186 253\""));
            assert!(page.svg.contains("h100M0 247.0v-5"), "{}", page.svg);
            assert!(page.svg.contains("Lever &amp; plate"));
            assert!(page.svg.contains(&format!("row {} of 2, page {} of 3", page.row, page.column)));
        }
    }

    #[test]
    fn what_nobody_could_glue_is_not_laid_out() {
        assert!(across(39_000.0, 39_000.0).pages().is_none());
    }

    proptest! {
        #[test]
        fn every_place_lies_on_some_page(wide in 1.0..1500.0_f64, high in 1.0..1500.0_f64, x in 0.0..1.0_f64, y in 0.0..1.0_f64) {
            let place = At::new(wide * x, high * y);
            let pages = across(wide, high).pages().unwrap().pages;
            let on = pages.iter().any(|page| {
                let (dx, dy) = (place.x_mm - page.from.x_mm, place.y_mm - page.from.y_mm);
                (0.0..=PAGE_MM.0).contains(&dx) && (0.0..=PAGE_MM.1).contains(&dy)
            });
            prop_assert!(on, "{place:?} of {wide} x {high}");
        }
    }
}
