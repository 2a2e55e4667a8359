//! A face as lines, circles and words at 1:1, in layers by what they are; written as SVG and as DXF.

use std::fmt::Write;

use super::{At, bounds};

/// What is drawn on one layer.
#[derive(Debug, Clone, PartialEq)]
pub enum Stroke {
    Line { points: Vec<At>, closed: bool },
    Circle { middle: At, radius_mm: f64 },
    Words { at: At, text: String },
}

/// A layer: its name, the width of its lines and how they are broken, all in mm.
#[derive(Debug, Clone, PartialEq)]
pub struct Layer {
    /// Capital letters, digits and `_`: what every reader of DXF takes.
    pub name: &'static str,
    pub width_mm: f64,
    /// A dash and a gap; nothing for an unbroken line.
    pub dashes_mm: Option<(f64, f64)>,
    pub strokes: Vec<Stroke>,
}

/// A drawing at 1:1.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Drawing {
    pub title: String,
    pub layers: Vec<Layer>,
}

/// House: height of its letters in mm.
const LETTERS_MM: f64 = 4.0;
/// House: room round it in mm.
const ROOM_MM: f64 = 10.0;

impl Drawing {
    /// What it needs: (left, top, right, bottom) in mm, with room round it.
    #[must_use]
    pub fn frame(&self) -> (f64, f64, f64, f64) {
        let mut corners = Vec::new();
        for stroke in self.layers.iter().flat_map(|layer| &layer.strokes) {
            match stroke {
                Stroke::Line { points, .. } => corners.extend(bounds(points)),
                Stroke::Circle { middle, radius_mm: r } => {
                    corners.push((middle.x_mm - r, middle.y_mm - r, middle.x_mm + r, middle.y_mm + r))
                }
                // Letters are about half as wide as they are high.
                Stroke::Words { at, text } => corners.push((
                    at.x_mm,
                    at.y_mm - LETTERS_MM,
                    at.x_mm + 0.6 * LETTERS_MM * text.chars().count() as f64,
                    at.y_mm,
                )),
            }
        }
        let places: Vec<At> = corners
            .into_iter()
            .flat_map(|(left, top, right, bottom)| [At::new(left, top), At::new(right, bottom)])
            .collect();
        let (left, top, right, bottom) = bounds(&places).unwrap_or((0.0, 0.0, 100.0, 100.0));
        (left - ROOM_MM, top - ROOM_MM, right + ROOM_MM, bottom + ROOM_MM)
    }

    /// As SVG 1.1, one unit a millimetre, printed at 1:1.
    #[must_use]
    pub fn svg(&self) -> String {
        let (left, top, right, bottom) = self.frame();
        let (wide, high) = (right - left, bottom - top);
        let mut svg = String::new();
        // A string takes everything.
        let mut say = |text: std::fmt::Arguments<'_>| svg.write_fmt(text).unwrap_or_default();
        say(format_args!(
            "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" \
             width=\"{wide:.3}mm\" height=\"{high:.3}mm\" viewBox=\"{left:.3} {top:.3} {wide:.3} {high:.3}\">\n\
             <title>{}</title>\n{}</svg>\n",
            escaped(&self.title),
            self.strokes()
        ));
        svg
    }

    /// All its layers as groups of SVG, in mm.
    pub(super) fn strokes(&self) -> String {
        let mut svg = String::new();
        let mut say = |text: std::fmt::Arguments<'_>| svg.write_fmt(text).unwrap_or_default();
        for layer in self.layers.iter().filter(|layer| !layer.strokes.is_empty()) {
            let dashes = layer
                .dashes_mm
                .map_or_else(String::new, |(dash, gap)| format!(" stroke-dasharray=\"{dash} {gap}\""));
            say(format_args!(
                "<g id=\"{}\" fill=\"none\" stroke=\"#000\" stroke-width=\"{}\"{dashes}>\n",
                layer.name, layer.width_mm
            ));
            for stroke in &layer.strokes {
                match stroke {
                    Stroke::Line { points, closed } => {
                        say(format_args!("<path d=\""));
                        for (at, point) in points.iter().enumerate() {
                            let pen = if at == 0 { 'M' } else { 'L' };
                            say(format_args!("{pen}{:.3} {:.3}", point.x_mm, point.y_mm));
                        }
                        say(format_args!("{}\"/>\n", if *closed { "Z" } else { "" }));
                    }
                    Stroke::Circle { middle, radius_mm } => say(format_args!(
                        "<circle cx=\"{:.3}\" cy=\"{:.3}\" r=\"{radius_mm:.3}\"/>\n",
                        middle.x_mm, middle.y_mm
                    )),
                    Stroke::Words { at, text } => say(format_args!(
                        "<text x=\"{:.3}\" y=\"{:.3}\" font-size=\"{LETTERS_MM}\" font-family=\"sans-serif\" \
                         fill=\"#000\" stroke=\"none\">{}</text>\n",
                        at.x_mm,
                        at.y_mm,
                        escaped(text)
                    )),
                }
            }
            say(format_args!("</g>\n"));
        }
        svg
    }

    /// As DXF R12, in millimetres, y up as such drawings have it.
    #[must_use]
    pub fn dxf(&self) -> String {
        let mut dxf = Dxf::default();
        dxf.pairs(DXF_HEAD);
        let layers: Vec<&Layer> = self.layers.iter().filter(|layer| !layer.strokes.is_empty()).collect();
        dxf.pair(70, &layers.len().to_string());
        for layer in &layers {
            let broken = if layer.dashes_mm.is_some() { "DASHED" } else { "CONTINUOUS" };
            dxf.pairs(&[(0, "LAYER"), (2, layer.name), (70, "0"), (62, "7"), (6, broken)]);
        }
        dxf.pairs(&[(0, "ENDTAB"), (0, "ENDSEC"), (0, "SECTION"), (2, "ENTITIES")]);
        for layer in &layers {
            for stroke in &layer.strokes {
                dxf.stroke(layer.name, stroke);
            }
        }
        dxf.pairs(&[(0, "ENDSEC"), (0, "EOF")]);
        dxf.0
    }
}

/// What a DXF begins with: its version and units, its kinds of line, and the beginning of its layers.
const DXF_HEAD: &[(u16, &str)] = &[
    (0, "SECTION"),
    (2, "HEADER"),
    (9, "$ACADVER"),
    (1, "AC1009"),
    (9, "$INSUNITS"),
    (70, "4"),
    (9, "$MEASUREMENT"),
    (70, "1"),
    (0, "ENDSEC"),
    (0, "SECTION"),
    (2, "TABLES"),
    (0, "TABLE"),
    (2, "LTYPE"),
    (70, "2"),
    (0, "LTYPE"),
    (2, "CONTINUOUS"),
    (70, "0"),
    (3, "Solid line"),
    (72, "65"),
    (73, "0"),
    (40, "0.0"),
    (0, "LTYPE"),
    (2, "DASHED"),
    (70, "0"),
    (3, "__ __ __"),
    (72, "65"),
    (73, "2"),
    (40, "6.0"),
    (49, "4.0"),
    (49, "-2.0"),
    (0, "ENDTAB"),
    (0, "TABLE"),
    (2, "LAYER"),
];

/// A DXF as it is written: codes and values, a line each.
#[derive(Default)]
struct Dxf(String);

impl Dxf {
    fn pair(&mut self, code: u16, value: &str) {
        self.0.push_str(&format!("{code:>3}\r\n{value}\r\n"));
    }

    fn pairs(&mut self, pairs: &[(u16, &str)]) {
        for (code, value) in pairs {
            self.pair(*code, value);
        }
    }

    fn mm(&mut self, code: u16, value: f64) {
        self.pair(code, &format!("{value:.4}"));
    }

    fn at(&mut self, at: At) {
        self.mm(10, at.x_mm);
        self.mm(20, -at.y_mm);
        self.pair(30, "0.0");
    }

    fn stroke(&mut self, layer: &str, stroke: &Stroke) {
        match stroke {
            Stroke::Line { points, closed } => {
                self.pairs(&[(0, "POLYLINE"), (8, layer), (66, "1"), (10, "0.0"), (20, "0.0"), (30, "0.0")]);
                self.pair(70, if *closed { "1" } else { "0" });
                for point in points {
                    self.pairs(&[(0, "VERTEX"), (8, layer)]);
                    self.at(*point);
                }
                self.pairs(&[(0, "SEQEND"), (8, layer)]);
            }
            Stroke::Circle { middle, radius_mm } => {
                self.pairs(&[(0, "CIRCLE"), (8, layer)]);
                self.at(*middle);
                self.mm(40, *radius_mm);
            }
            Stroke::Words { at, text } => {
                self.pairs(&[(0, "TEXT"), (8, layer)]);
                self.at(*at);
                self.mm(40, LETTERS_MM);
                // R12 knows the letters of ASCII; a line break would end the value.
                let plain: String =
                    text.chars().map(|c| if (' '..='~').contains(&c) { c } else { '?' }).collect();
                self.pair(1, &plain);
            }
        }
    }
}

/// Letters that have a meaning of their own in XML, and those that it cannot hold.
pub(super) fn escaped(text: &str) -> String {
    let mut escaped = String::with_capacity(text.len());
    for letter in text.chars() {
        match letter {
            '&' => escaped.push_str("&amp;"),
            '<' => escaped.push_str("&lt;"),
            '>' => escaped.push_str("&gt;"),
            '"' => escaped.push_str("&quot;"),
            letter if letter.is_control() => escaped.push(' '),
            letter => escaped.push(letter),
        }
    }
    escaped
}

#[cfg(test)]
mod tests {
    use super::*;

    fn drawing() -> Drawing {
        let line = Stroke::Line { points: vec![At::new(0.0, 0.0), At::new(120.0, 50.0)], closed: false };
        let hole = Stroke::Circle { middle: At::new(124.5, 52.0), radius_mm: 4.0 };
        let words = Stroke::Words { at: At::new(10.0, 20.0), text: "A <& \"B\"\n8 mm Ø".to_owned() };
        let layer = |name, strokes| Layer { name, width_mm: 0.5, dashes_mm: None, strokes };
        Drawing {
            title: "Lever & plate".to_owned(),
            layers: vec![
                layer("CRACKS", vec![line]),
                layer("STOP_HOLES", vec![hole]),
                layer("WORDS", vec![words]),
                layer("TACKS", Vec::new()),
            ],
        }
    }

    #[test]
    fn an_svg_is_as_large_as_what_it_shows() {
        let svg = drawing().svg();
        // Hand-worked: from -10 to 128.5 + 10 across, from -10 to 56 + 10 down.
        assert!(
            svg.contains(
                "width=\"148.500mm\" height=\"76.000mm\" viewBox=\"-10.000 -10.000 148.500 76.000\""
            )
        );
        assert!(svg.contains("<title>Lever &amp; plate</title>"));
        assert!(svg.contains("A &lt;&amp; &quot;B&quot; 8 mm Ø</text>"), "{svg}");
        assert!(!svg.contains("TACKS"), "an empty layer is left out");
    }

    #[test]
    fn a_dxf_is_pairs_of_a_code_and_a_value() {
        let dxf = drawing().dxf();
        let lines: Vec<&str> = dxf.lines().collect();
        assert_eq!(lines.len() % 2, 0);
        assert!(lines.iter().step_by(2).all(|code| code.trim().parse::<u16>().is_ok()));
        // y is up: 52 down is -52.
        assert!(dxf.contains(" 10\r\n124.5000\r\n 20\r\n-52.0000\r\n 30\r\n0.0\r\n 40\r\n4.0000"));
        assert!(dxf.contains("A <& \"B\"?8 mm ?"), "no line break, no letter that R12 does not know");
    }
}
