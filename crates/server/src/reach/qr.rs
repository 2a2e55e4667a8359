//! An address as a square code that a phone's camera reads.

use qrcode::render::{svg, unicode};
use qrcode::{EcLevel, QrCode};

fn code(text: &str) -> Option<QrCode> {
    QrCode::with_error_correction_level(text, EcLevel::M).ok()
}

/// Dark on light whatever the theme: cameras read no other.
#[must_use]
pub fn svg(text: &str) -> Option<String> {
    let drawn = code(text)?
        .render::<svg::Color<'_>>()
        .min_dimensions(240, 240)
        .dark_color(svg::Color("#000"))
        .light_color(svg::Color("#fff"))
        .build();
    // As it stands in a page: without the line that begins a file.
    drawn.find("<svg").map(|at| drawn[at..].to_owned())
}

/// For a terminal with light words on a dark ground.
#[must_use]
pub fn lines(text: &str) -> Option<String> {
    // What is dark in the code stays dark on the ground.
    let (dark, light) = (unicode::Dense1x2::Light, unicode::Dense1x2::Dark);
    Some(code(text)?.render::<unicode::Dense1x2>().dark_color(dark).light_color(light).build())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_address_is_drawn_twice() {
        let address = "https://192.168.1.20:8420";
        let drawn = svg(address).unwrap();
        assert!(drawn.starts_with("<svg") && drawn.trim_end().ends_with("</svg>"), "{}", &drawn[..80]);
        let lines = lines(address).unwrap();
        // Hand-worked: 25 letters at level M take version 2, 25 squares and 4 of margin on each side; two to a line.
        assert_eq!(lines.lines().map(|line| line.chars().count()).max(), Some(33));
        assert_eq!(lines.lines().count(), 17);
    }

    #[test]
    fn what_is_too_long_for_a_code_is_none() {
        assert!(svg(&"x".repeat(5_000)).is_none());
    }
}
