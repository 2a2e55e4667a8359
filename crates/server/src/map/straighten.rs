//! A picture laid flat on a face.

use image::codecs::jpeg::JpegEncoder;
use image::{Rgb, RgbImage};
use vanadin_core::job::FacePicture;
use vanadin_core::map::At;

/// Longest side of a straightened picture, in points. Ours: as of the picture it is made from.
const MOST_SIDE: f64 = 2_000.0;
const QUALITY: u8 = 86;

/// What a face shows of a picture, and how large its points are there.
pub struct PictureOnFace {
    pub left_mm: f64,
    pub top_mm: f64,
    /// Points of the straightened picture to a millimetre.
    pub per_mm: f64,
    pub width: u32,
    pub height: u32,
}

impl PictureOnFace {
    /// Nothing where the points make no scale.
    pub fn of(picture: &FacePicture) -> Option<Self> {
        let (left_mm, top_mm, right_mm, bottom_mm) = picture.frame()?;
        let [width, height] = picture.size_px;
        let (wide, high) = (right_mm - left_mm, bottom_mm - top_mm);
        let sharp = 1.0 / picture.straightened()?.point_mm([width / 2.0, height / 2.0])?;
        let per_mm = sharp.min(MOST_SIDE / wide).min(MOST_SIDE / high);
        let points = |mm: f64| (mm * per_mm).round().clamp(2.0, MOST_SIDE) as u32;
        Some(Self { left_mm, top_mm, per_mm, width: points(wide), height: points(high) })
    }

    /// Where a place lies in the straightened picture.
    pub fn point(&self, at: At) -> [f64; 2] {
        [(at.x_mm - self.left_mm) * self.per_mm, (at.y_mm - self.top_mm) * self.per_mm]
    }

    pub fn place(&self, [x, y]: [f64; 2]) -> At {
        At::new(self.left_mm + x / self.per_mm, self.top_mm + y / self.per_mm)
    }
}

/// The picture as it lies on its face, as a JPEG; nothing where it cannot be opened or makes no scale.
pub fn straightened(jpeg: &[u8], picture: &FacePicture) -> Option<Vec<u8>> {
    let (laid, map) = (PictureOnFace::of(picture)?, picture.straightened()?);
    let taken = image::load_from_memory(jpeg).ok()?.into_rgb8();
    // What was pressed was pressed on a picture of the size that was said.
    let [wide, high] = picture.size_px;
    let (sx, sy) = (f64::from(taken.width()) / wide, f64::from(taken.height()) / high);
    let flat = RgbImage::from_fn(laid.width, laid.height, |x, y| {
        let at = laid.place([f64::from(x) + 0.5, f64::from(y) + 0.5]);
        map.px(at).and_then(|[x, y]| blended(&taken, x * sx - 0.5, y * sy - 0.5)).unwrap_or(Rgb([38, 40, 39]))
    });
    let mut kept = Vec::new();
    flat.write_with_encoder(JpegEncoder::new_with_quality(&mut kept, QUALITY)).ok()?;
    Some(kept)
}

/// The colour between four points; nothing outside the picture.
fn blended(picture: &RgbImage, x: f64, y: f64) -> Option<Rgb<u8>> {
    let (most_x, most_y) = (picture.width() - 1, picture.height() - 1);
    if x < -0.5 || y < -0.5 || x > f64::from(most_x) + 0.5 || y > f64::from(most_y) + 0.5 {
        return None;
    }
    let (x, y) = (x.clamp(0.0, f64::from(most_x)), y.clamp(0.0, f64::from(most_y)));
    let (left, top) = (x as u32, y as u32);
    let (right, below) = ((left + 1).min(most_x), (top + 1).min(most_y));
    let (u, v) = (x - f64::from(left), y - f64::from(top));
    let [a, b, c, d] =
        [(left, top), (right, top), (left, below), (right, below)].map(|(x, y)| picture.get_pixel(x, y).0);
    let mix = |at: usize| {
        let upper = f64::from(a[at]) * (1.0 - u) + f64::from(b[at]) * u;
        let lower = f64::from(c[at]) * (1.0 - u) + f64::from(d[at]) * u;
        (upper * (1.0 - v) + lower * v).round() as u8
    };
    Some(Rgb([mix(0), mix(1), mix(2)]))
}

#[cfg(test)]
mod tests {
    use super::*;
    use uuid::Uuid;

    /// A board of squares of 20 mm, 200 by 140 mm, seen at a slant.
    fn slanted() -> (Vec<u8>, FacePicture) {
        let picture = FacePicture {
            picture: Uuid::nil(),
            points_px: vec![[120.0, 90.0], [700.0, 130.0], [640.0, 520.0], [90.0, 430.0]],
            size_px: [800.0, 600.0],
            across_mm: 200.0,
            down_mm: Some(140.0),
            revision: 1,
        };
        let map = picture.straightened().unwrap();
        let board = RgbImage::from_fn(800, 600, |x, y| {
            let at = map.mm([f64::from(x) + 0.5, f64::from(y) + 0.5]);
            let dark = at.is_some_and(|at| {
                ((at.x_mm / 20.0).floor() + (at.y_mm / 20.0).floor()).rem_euclid(2.0) < 1.0
            });
            if dark { Rgb([30; 3]) } else { Rgb([220; 3]) }
        });
        let mut jpeg = Vec::new();
        board.write_with_encoder(JpegEncoder::new_with_quality(&mut jpeg, 95)).unwrap();
        (jpeg, picture)
    }

    #[test]
    fn a_slanted_board_has_square_squares_again() {
        let (jpeg, picture) = slanted();
        let flat = image::load_from_memory(&straightened(&jpeg, &picture).unwrap()).unwrap().into_rgb8();
        let laid = PictureOnFace::of(&picture).unwrap();
        assert_eq!((flat.width(), flat.height()), (laid.width, laid.height));
        for (column, row) in [(0, 0), (3, 2), (9, 6), (5, 5), (8, 1)] {
            let middle = At::new(f64::from(column) * 20.0 + 10.0, f64::from(row) * 20.0 + 10.0);
            let [x, y] = laid.point(middle);
            let dark = flat.get_pixel(x as u32, y as u32).0[0] < 120;
            assert_eq!(dark, (column + row) % 2 == 0, "{column} {row}");
            assert!(laid.place([x, y]).distance_mm(middle) < 1e-9);
        }
    }

    #[test]
    fn what_is_no_picture_is_not_laid() {
        let (jpeg, picture) = slanted();
        assert!(straightened(&jpeg[..200], &picture).is_none());
        let no_scale = FacePicture { points_px: vec![[0.0, 0.0]; 4], ..picture };
        assert!(straightened(&jpeg, &no_scale).is_none());
    }
}
