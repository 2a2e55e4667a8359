//! Makes a picture of what was sent: upright, small enough, and nothing in it but the picture.

use std::io::Cursor;

use image::codecs::jpeg::JpegEncoder;
use image::metadata::Orientation;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};
use vanadin_core::base::problem::FieldProblem;

/// A picture ready to be kept.
#[derive(Debug)]
pub struct Shrunk {
    pub width: u32,
    pub height: u32,
    pub jpeg: Vec<u8>,
    pub small: Vec<u8>,
}

/// Largest picture that is opened, in points. Ours: what the cameras of phones make.
const MOST_POINTS: u64 = 50_500_000;
/// Over so many points, so many of them are believed of each byte that was sent. House: a photograph has three to ten;
/// what has hundreds is one colour, and takes the memory of a photograph all the same.
const LARGE_POINTS: u64 = 16_000_000;
const POINTS_A_BYTE: u64 = 200;
/// Longest side, in points.
const MOST_SIDE: u32 = 20_000;
/// Bytes of the opened picture: all points with a colour of four bytes. Nothing larger is ever
/// allocated for one.
const MOST_BYTES: u64 = MOST_POINTS * 4;

/// Longest side of what is kept, and of the small one. Ours: a crack can still be followed.
const KEPT_SIDE: u32 = 2_000;
const SMALL_SIDE: u32 = 320;
const KEPT_QUALITY: u8 = 84;
const SMALL_QUALITY: u8 = 76;

fn refused(message: impl Into<String>, right: &str) -> FieldProblem {
    FieldProblem::new("picture", message, right)
}

/// Opens what was sent and makes a kept picture of it. What it says of itself, its name and its
/// declared type, is not believed.
///
/// # Errors
/// It is no JPEG, PNG or WebP, it is damaged, or it is larger than can be opened.
pub fn shrink(sent: &[u8]) -> Result<Shrunk, FieldProblem> {
    let no_picture = || refused("This is no picture that can be opened.", "a JPEG, PNG or WebP");
    let mut reader = ImageReader::new(Cursor::new(sent)).with_guessed_format().map_err(|_| no_picture())?;
    let known = [ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP];
    if !reader.format().is_some_and(|format| known.contains(&format)) {
        return Err(no_picture());
    }
    let damaged =
        || refused("This picture is damaged and cannot be opened.", "send it again, or another one");
    // The decoder would paint what is missing gray.
    if reader.format() == Some(ImageFormat::Jpeg) && !comes_to_its_end(sent) {
        return Err(damaged());
    }
    let mut limits = Limits::no_limits();
    limits.max_image_width = Some(MOST_SIDE);
    limits.max_image_height = Some(MOST_SIDE);
    limits.max_alloc = Some(MOST_BYTES);
    reader.limits(limits);
    let too_many =
        || refused("This picture has too many points to be opened.", "up to 50 million, and 20 000 a side");
    let mut decoder = reader.into_decoder().map_err(|error| match error {
        image::ImageError::Limits(_) => too_many(),
        _ => damaged(),
    })?;
    let (width, height) = decoder.dimensions();
    if u64::from(width) * u64::from(height) > MOST_POINTS || decoder.total_bytes() > MOST_BYTES {
        return Err(too_many());
    }
    let points = u64::from(width) * u64::from(height);
    if points > LARGE_POINTS && points / POINTS_A_BYTE > sent.len() as u64 {
        return Err(refused(
            "This picture says it is far larger than what was sent can hold.",
            "a photograph",
        ));
    }
    if width < 2 || height < 2 {
        return Err(refused("This picture is empty.", "a picture of the part"));
    }
    // A picture that does not say which way is up is taken as it lies.
    let up = decoder.orientation().unwrap_or(Orientation::NoTransforms);
    let opened = DynamicImage::from_decoder(decoder).map_err(|error| match error {
        image::ImageError::Limits(_) => too_many(),
        _ => damaged(),
    })?;
    let mut kept =
        if width.max(height) > KEPT_SIDE { opened.thumbnail(KEPT_SIDE, KEPT_SIDE) } else { opened };
    kept.apply_orientation(up);
    let kept = DynamicImage::ImageRgb8(kept.into_rgb8());
    let small = kept.thumbnail(SMALL_SIDE, SMALL_SIDE);
    let made = |picture: &DynamicImage, quality| {
        let mut jpeg = Vec::new();
        picture
            .write_with_encoder(JpegEncoder::new_with_quality(&mut jpeg, quality))
            .map(|()| jpeg)
            .map_err(|_| damaged())
    };
    Ok(Shrunk {
        width: kept.width(),
        height: kept.height(),
        // What was already kept once comes back as it was.
        jpeg: if is_ours(sent, kept.width().max(kept.height())) {
            sent.to_vec()
        } else {
            made(&kept, KEPT_QUALITY)?
        },
        small: made(&small, SMALL_QUALITY)?,
    })
}

/// The segments of a JPEG before the picture itself, by their markers, and where that begins; nothing
/// where they do not lead to it.
fn segments(jpeg: &[u8]) -> Option<(Vec<u8>, usize)> {
    const START_OF_SCAN: u8 = 0xda;
    let mut at = jpeg.starts_with(&[0xff, 0xd8]).then_some(2)?;
    let mut markers = Vec::new();
    loop {
        // A marker may be filled up with more of its first byte.
        while jpeg.get(at..at + 2)? == [0xff, 0xff] {
            at += 1;
        }
        let &[0xff, marker, high, low] = jpeg.get(at..at + 4)? else { return None };
        at += 2 + usize::from(u16::from_be_bytes([high, low]));
        if marker == START_OF_SCAN {
            return Some((markers, at));
        }
        markers.push(marker);
    }
}

/// The sign that ends a JPEG stands behind the picture itself: in it no such pair of bytes can be.
fn comes_to_its_end(jpeg: &[u8]) -> bool {
    segments(jpeg)
        .and_then(|(_, at)| jpeg.get(at..))
        .is_some_and(|picture| picture.windows(2).any(|pair| pair == [0xff, 0xd9]))
}

/// A JPEG with nothing in it but what is needed to draw it, no larger than what is kept: such as is
/// written here. It need not be made anew when a job's file is opened.
fn is_ours(jpeg: &[u8], longest: u32) -> bool {
    /// JFIF's own sign, tables, frame, restart interval.
    const NEEDED: [u8; 5] = [0xe0, 0xdb, 0xc0, 0xc4, 0xdd];
    let Some((markers, at)) = segments(jpeg) else { return false };
    let signs = markers.iter().filter(|marker| **marker == 0xe0).count();
    longest <= KEPT_SIDE
        && markers.iter().all(|marker| NEEDED.contains(marker))
        && signs <= 1
        && (signs == 0 || sign_is_bare(jpeg))
        && jpeg.get(at..).is_some_and(is_one_scan)
}

/// The first segment is JFIF's sign as it is written here: no thumbnail, and nothing else in it.
fn sign_is_bare(jpeg: &[u8]) -> bool {
    /// Its own length and name; then come version, units and density, and a thumbnail of no size.
    const BEGINS: [u8; 9] = [0xff, 0xe0, 0, 16, b'J', b'F', b'I', b'F', 0];
    const LONG: usize = 18;
    let Some(sign) = jpeg.get(2..2 + LONG) else { return false };
    sign.starts_with(&BEGINS) && sign.ends_with(&[0, 0])
}

/// From the picture's first byte on there is nothing but that picture, and its end.
fn is_one_scan(picture: &[u8]) -> bool {
    let mut at = 0;
    while let Some(&byte) = picture.get(at) {
        if byte != 0xff {
            at += 1;
            continue;
        }
        match picture.get(at + 1) {
            // A plain byte of the picture, or where it can be taken up again.
            Some(0 | 0xd0..=0xd7) => at += 2,
            Some(0xd9) => return at + 2 == picture.len(),
            _ => return false,
        }
    }
    false
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::{ImageEncoder, Rgb, RgbImage};

    fn jpeg(picture: &RgbImage) -> Vec<u8> {
        let mut bytes = Vec::new();
        picture.write_with_encoder(JpegEncoder::new_with_quality(&mut bytes, 90)).unwrap();
        bytes
    }

    /// Left half dark, right half bright.
    fn halves(width: u32, height: u32) -> RgbImage {
        RgbImage::from_fn(width, height, |x, _| if x < width / 2 { Rgb([20; 3]) } else { Rgb([230; 3]) })
    }

    /// The same with a word that says which side is up and where it was taken.
    fn with_words(picture: &[u8], orientation: u8, place: &str) -> Vec<u8> {
        // TIFF, little-endian: one entry, tag 0x0112, a short; then the place as plain bytes.
        let mut exif = b"Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0".to_vec();
        exif.extend([orientation, 0, 0, 0, 0, 0, 0, 0]);
        exif.extend(place.as_bytes());
        let length = u16::try_from(exif.len() + 2).unwrap().to_be_bytes();
        let mut whole = picture[..2].to_vec();
        whole.extend([0xff, 0xe1]);
        whole.extend(length);
        whole.extend(exif);
        whole.extend(&picture[2..]);
        whole
    }

    fn bright(picture: &[u8], x: u32, y: u32) -> bool {
        image::load_from_memory(picture).unwrap().to_rgb8().get_pixel(x, y).0[0] > 128
    }

    #[test]
    fn a_picture_is_turned_upright_and_forgets_where_it_was_taken() {
        let sent = with_words(&jpeg(&halves(400, 200)), 6, "GPS 51.5 N 0.1 W");
        let kept = shrink(&sent).unwrap();
        // Turned a quarter to the right: what was left lies on top.
        assert_eq!((kept.width, kept.height), (200, 400));
        assert!(!bright(&kept.jpeg, 100, 40) && bright(&kept.jpeg, 100, 360));
        let words = |bytes: &[u8], text: &[u8]| bytes.windows(text.len()).any(|window| window == text);
        assert!(words(&sent, b"GPS") && !words(&kept.jpeg, b"GPS") && !words(&kept.jpeg, b"Exif"));
        assert!(!words(&kept.small, b"GPS"));
    }

    #[test]
    fn a_large_picture_is_made_smaller_and_a_small_one_stays() {
        let large = shrink(&jpeg(&halves(3000, 1500))).unwrap();
        assert_eq!((large.width, large.height), (2000, 1000));
        let small = shrink(&jpeg(&halves(300, 150))).unwrap();
        assert_eq!((small.width, small.height), (300, 150));
        assert!(small.small.len() <= large.jpeg.len());
    }

    #[test]
    fn what_was_kept_once_comes_back_as_it_was() {
        let once = shrink(&with_words(&jpeg(&halves(900, 600)), 1, "somewhere")).unwrap();
        let twice = shrink(&once.jpeg).unwrap();
        assert_eq!(once.jpeg, twice.jpeg);
        // Something hung on behind the end is not kept.
        let mut hung_on = once.jpeg.clone();
        hung_on.extend(b"and a letter");
        assert!(!shrink(&hung_on).unwrap().jpeg.ends_with(b"letter"));
    }

    #[test]
    fn words_in_the_sign_or_behind_the_picture_are_not_kept() {
        let once = shrink(&jpeg(&halves(900, 600))).unwrap().jpeg;
        assert_eq!(shrink(&once).unwrap().jpeg, once, "as it was");
        let secret = b"GPS 51.5 N 0.1 W";
        let hidden = |bytes: &[u8]| bytes.windows(secret.len()).any(|window| window == secret);
        // A sign of the same kind that is longer than its own words.
        let mut in_the_sign = once[..2].to_vec();
        in_the_sign.extend([0xff, 0xe0]);
        in_the_sign.extend(u16::try_from(secret.len() + 16).unwrap().to_be_bytes());
        in_the_sign.extend(&once[6..20]);
        in_the_sign.extend(secret);
        in_the_sign.extend(&once[20..]);
        // A comment between the picture and its end.
        let mut behind = once[..once.len() - 2].to_vec();
        behind.extend([0xff, 0xfe]);
        behind.extend(u16::try_from(secret.len() + 2).unwrap().to_be_bytes());
        behind.extend(secret);
        behind.extend([0xff, 0xd9]);
        for sent in [in_the_sign, behind] {
            assert!(hidden(&sent));
            let kept = shrink(&sent).unwrap();
            assert!(!hidden(&kept.jpeg) && !hidden(&kept.small));
        }
    }

    #[test]
    fn png_and_webp_are_opened_too() {
        let picture = halves(40, 30);
        for format in [ImageFormat::Png, ImageFormat::WebP] {
            let mut bytes = Cursor::new(Vec::new());
            picture.write_to(&mut bytes, format).unwrap();
            let kept = shrink(bytes.get_ref()).unwrap();
            assert_eq!((kept.width, kept.height), (40, 30), "{format:?}");
        }
    }

    /// A PNG that says it is so large, with hardly anything in it.
    fn bomb(width: u32, height: u32) -> Vec<u8> {
        let mut bytes = Vec::new();
        let encoder = image::codecs::png::PngEncoder::new(&mut bytes);
        encoder.write_image(&[0], 1, 1, image::ExtendedColorType::L8).unwrap();
        // Width and height stand at a fixed place; the check sum over them is worked out anew.
        bytes[16..20].copy_from_slice(&width.to_be_bytes());
        bytes[20..24].copy_from_slice(&height.to_be_bytes());
        let crc = crc32(&bytes[12..29]);
        bytes[29..33].copy_from_slice(&crc.to_be_bytes());
        bytes
    }

    fn crc32(bytes: &[u8]) -> u32 {
        !bytes.iter().fold(!0u32, |crc, byte| {
            (0..8).fold(crc ^ u32::from(*byte), |crc, _| {
                if crc & 1 == 1 { (crc >> 1) ^ 0xedb8_8320 } else { crc >> 1 }
            })
        })
    }

    #[test]
    fn a_bomb_a_text_and_a_torn_picture_are_refused_with_the_reason() {
        let whole = jpeg(&halves(800, 600));
        let said = |bytes: &[u8]| shrink(bytes).unwrap_err().message;
        assert!(said(&bomb(60_000, 60_000)).contains("too many points"));
        assert!(said(&bomb(19_000, 19_000)).contains("too many points"));
        assert!(said(&bomb(7_000, 7_000)).contains("far larger than what was sent"));
        assert!(said(&bomb(4_000, 4_000)).contains("damaged"), "it is not large");
        assert!(said(&bomb(20_001, 100)).contains("too many points"), "too long a side");
        assert!(said(&bomb(20_000, 100)).contains("damaged"), "just not too long");
        assert!(said(b"Dear owner, the lever is broken.").contains("no picture"));
        assert!(said(b"").contains("no picture"));
        assert!(said(b"GIF89a\x01\0\x01\0").contains("no picture"));
        assert!(said(&whole[..40]).contains("damaged"));
        assert!(said(&whole[..whole.len() - 2]).contains("damaged"), "cut off just before its end");
        assert!(said(&bomb(300, 300)).contains("damaged"));
    }
}
