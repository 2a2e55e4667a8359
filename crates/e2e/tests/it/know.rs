//! Know what lies on the bench: the part described with one hand, its pictures, its iron.

use std::io::Cursor;
use std::path::Path;

use anyhow::Context;
use image::codecs::jpeg::JpegEncoder;
use image::{ExtendedColorType, ImageFormat};
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, ENTER, Hand, Server, eventually};

/// Opens a test of the roll.
async fn open_pocket(browser: &Browser, test: &str) -> anyhow::Result<()> {
    browser.press_what(By::Id(format!("roll-{test}"))).await?;
    Ok(())
}

#[tokio::test]
async fn on_a_phone_a_lever_is_known_in_ten_taps() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress").await?;
    let mut hand = Hand::new(&browser);
    hand.press("New job").await?;
    hand.choose("What sort of part?", "Moving, under load").await?;
    hand.choose("When was it cast?", "1970 or later").await?;
    hand.go("Part", "Iron").await?;
    hand.press("Break: light gray, silky").await?;
    hand.press("Punch: raises a rim").await?;
    eventually("the next test is open", async || {
        let headline = browser.text("iron-headline").await?;
        Ok(headline.starts_with("Ductile leads. Next: "))
    })
    .await?;
    hand.open_pocket("drill").await?;
    hand.press("Drill: short curls").await?;
    eventually("ductile leads", async || {
        let headline = browser.text("iron-headline").await?;
        Ok(headline.starts_with("Ductile leads. Next: ") || headline.starts_with("Ductile: enough"))
    })
    .await?;
    assert!(hand.taps <= 10, "{} taps", hand.taps);
    let wide =
        browser.run("return document.documentElement.scrollWidth").await?.as_u64().context("no width")?;
    assert!(wide <= 390, "nothing scrolls sideways");
    assert_eq!(browser.serious_problems().await?, Vec::<String>::new());
    Ok(())
}

/// A phone asks for its number keys, which know no units: those stand at the field, and keep it in hand.
#[tokio::test]
async fn on_a_phone_a_glove_finds_the_units_beside_the_number_keys() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.unfold("How big").await?;
    let wall = browser.field("Wall at the break").await?;
    assert_eq!(wall.prop("inputMode").await?.as_deref(), Some("decimal"));
    browser.run("document.getElementById('field-part-mass').scrollIntoView({ block: 'center' })").await?;
    browser.click(&browser.field("Weight").await?).await?;
    let right = "return Math.max(...[...document.querySelectorAll('[aria-label=Units] button')].map((key) => key.getBoundingClientRect().right)) <= 390";
    assert_eq!(
        browser.run(right).await?,
        json!(true),
        "those of the field at the right edge are on the page"
    );
    browser.click(&wall).await?;
    wall.send_keys(Key::Control + "a").await?;
    wall.send_keys("7/16").await?;
    browser.press("mm").await?;
    browser.press("in").await?;
    let small = "return [...document.querySelectorAll('[aria-label=Units] button')].map((key) => key.getBoundingClientRect())
         .filter(({ width, height }) => width < 44 || height < 44).length + document.documentElement.scrollWidth";
    assert_eq!(browser.run(small).await?, json!(390), "each as wide as a glove, none beside the page");
    assert_eq!(browser.serious_problems().await?, Vec::<String>::new());
    browser.press("abc").await?;
    assert_ne!(
        wall.prop("inputMode").await?.as_deref(),
        Some("decimal"),
        "letters, where they are asked for"
    );
    // The field had the keys all the while. Hand-worked: 7/16 of 25.4 mm is 11.1 mm, 11 as a rule reads.
    browser.key(ENTER).await?;
    eventually("what was typed and pressed is said once", async || {
        let view = browser.view(&job).await?;
        let said = &view["fields"]["part.wall"];
        Ok(said["typed"] == json!("7/16 in") && said["shown"]["number"] == json!("11"))
    })
    .await
}

#[tokio::test]
async fn a_typical_part_is_described_with_one_hand_in_25_taps_and_entries() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress").await?;
    let mut hand = Hand::new(&browser);
    hand.press("New job").await?;
    hand.type_in("What is it?", "Tile press lever").await?;
    hand.choose("What sort of part?", "Moving, under load").await?;
    hand.choose("When was it cast?", "1970 or later").await?;
    // What matters next opens by itself.
    hand.choose("Could it hurt somebody?", "None of these").await?;
    hand.type_in("Wall at the break", "14").await?;
    hand.choose("Shape", "Solid block").await?;
    hand.type_in("Length", "400").await?;
    hand.type_in("Width", "90").await?;
    hand.type_in("Height", "45").await?;
    hand.choose("Can be reached from", "Both sides").await?;
    hand.type_in("Break lies at, % of the longest side", "40").await?;
    hand.type_in("Hottest in service", "40 C").await?;
    hand.choose("What does it hold?", "Nothing").await?;
    hand.choose("What it carries", "Bending").await?;
    hand.choose("Oil", "Clean").await?;
    browser.sees("Enough is known of the part.").await?;
    hand.choose("How did it break?", "A blow").await?;
    hand.choose("Repaired before, with", "Never repaired").await?;
    hand.choose("A closed hollow?", "None").await?;
    hand.choose("Has to last", "For good").await?;
    hand.choose("Machined afterwards", "Nothing").await?;
    hand.choose("Test marks", "Where hidden").await?;
    assert!(hand.taps <= 25, "{} taps and entries", hand.taps);
    // The weight follows from size and shape, and says how far it may be off.
    // Hand-worked: 0.4 x 0.09 x 0.045 m x 0.75 x 7150 = 8.69 kg, half and all of the box 5.79 and 11.58
    browser.sees("5.8 kg to 11.6 kg").await?;
    let job = browser.job("Tile press lever").await?;
    let view = browser.view(&job).await?;
    assert_eq!(view["plan"]["stations"][0]["amount"], "enough");
    assert_eq!(view["plan"]["part"]["weight_words"], "about 8.7 kg");
    Ok(())
}

#[tokio::test]
async fn an_unknown_wall_stays_unknown_and_the_page_says_what_that_costs() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Glasshouse").await?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.unfold("How big").await?;
    browser.type_in("Wall at the break", "").await?;
    browser.sees("Wall not known: stop-holes, groove and preheat are for 10 mm, a guess.").await?;
    browser.type_in("Wall at the break", "9").await?;
    eventually("the guess goes", async || Ok(!browser.page().await?.contains("Wall not known"))).await?;
    // What may get hot beside it, each with its own limit.
    browser.unfold("How it came in").await?;
    browser.press("Something must stay cool").await?;
    browser.type_in("Must stay cool", "putty in the bars").await?;
    browser.type_in("Not over", "60C").await?;
    browser.sees("Keep cool: putty in the bars, under 60 °C.").await?;
    browser.press("Not there after all").await?;
    eventually("it is gone", async || Ok(!browser.page().await?.contains("putty"))).await?;
    browser.press("Undo").await?;
    browser.sees("Keep cool: putty in the bars, under 60 °C.").await?;
    Ok(())
}

#[tokio::test]
async fn a_wear_part_found_white_is_not_repaired() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/?new")).await?;
    browser.type_in("What is it?", "Plough share").await?;
    browser.choose("What sort of part?", "Wear part").await?;
    browser.key("2").await?;
    // In question by its sort alone: it has to be tested for.
    browser.sees("Test first").await?;
    open_pocket(&browser, "file").await?;
    browser.press("File: skates").await?;
    browser.sees("Test again elsewhere").await?;
    let spot = browser.find(By::Css("input[value='first spot']")).await?;
    browser.click(&spot).await?;
    spot.send_keys(Key::Control + "a").await?;
    spot.send_keys("a hand further").await?;
    open_pocket(&browser, "drill").await?;
    browser.press("Drill: will not bite").await?;
    browser.sees("White: don't repair.").await?;
    browser.key("4").await?;
    browser.sees("Don't repair").await?;
    browser.sees("White iron: welding cracks it").await?;
    let job = browser.job("Plough share").await?;
    let view = browser.view(&job).await?;
    assert_eq!(view["standing"]["stopped"], "Don't repair");
    Ok(())
}

#[tokio::test]
async fn the_plan_is_seen_as_if_it_were_one_iron_and_a_hard_spot_goes_on_the_map() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    browser.go(&server.url(&format!("/jobs/{job}/iron"))).await?;
    browser.choose("The plan as if it were", "Steel").await?;
    browser.sees("As if it were steel.").await?;
    browser.key("4").await?;
    browser.sees("low-hydrogen steel practice").await?;
    browser.press("Back to what it may be").await?;
    browser.sees("Set pins along it and locks across it, cold.").await?;

    browser.key("2").await?;
    open_pocket(&browser, "file").await?;
    browser.press("File: skates").await?;
    browser.press("Hard spot: File: skates").await?;
    browser.sees("a hard spot, on the map").await?;
    browser.key("3").await?;
    browser.sees("Hard spots").await?;
    browser.press("Cross out hard spot first spot").await?;
    browser.press("misread").await?;
    eventually("it is off the map", async || Ok(!browser.page().await?.contains("Hard spots"))).await?;
    Ok(())
}

#[tokio::test]
async fn what_is_measured_is_worked_out_and_a_wrong_number_told_at_its_field() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    browser.go(&server.url(&format!("/jobs/{job}/iron"))).await?;
    open_pocket(&browser, "sound").await?;
    browser.type_in("Gauge set to", "5920").await?;
    browser.sees("this is needed too").await?;
    browser.type_in("Caliper says", "14 mm").await?;
    browser.type_in("Gauge says", "30").await?;
    browser.sees("no iron or steel sounds like that").await?;
    assert_eq!(browser.field("Caliper says").await?.prop("value").await?.as_deref(), Some("14 mm"));
    browser.type_in("Gauge says", "14.9").await?;
    // Hand-worked: 5920 x 14 / 14.9
    browser.sees("Sound speed: 5562 m/s through 14 mm").await?;
    open_pocket(&browser, "mark").await?;
    browser.type_in("Cast or stamped on it", "Pat. 1184").await?;
    browser.sees("names no grade that is known here").await?;
    browser.type_in("Cast or stamped on it", "65-45-12").await?;
    browser.sees("Casting mark: 65-45-12: ductile (ASTM A536, 448 MPa)").await?;
    browser.sees("Ductile: enough, go on.").await?;
    Ok(())
}

/// A picture as a phone makes it: forty-odd million points, close to 20 MB, lying on its side, and
/// saying where it was taken. What it shows is plain, and what it weighs stands beside that: it is made in a moment.
fn from_a_phone(file: &Path) -> anyhow::Result<u64> {
    const WEIGHS: usize = (20 << 20) - 2_000;
    let mut flat = Vec::new();
    let points = vec![90_u8; 7680 * 5760];
    JpegEncoder::new_with_quality(&mut flat, 60).encode(&points, 7680, 5760, ExtendedColorType::L8)?;
    let segment = |kind: u8, bytes: &[u8]| -> anyhow::Result<Vec<u8>> {
        let mut whole = vec![0xff, kind];
        whole.extend(u16::try_from(bytes.len() + 2)?.to_be_bytes());
        whole.extend(bytes);
        Ok(whole)
    };
    let mut whole = vec![0xff, 0xd8];
    whole.extend(segment(
        0xe1,
        b"Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0\x06\0\0\0\0\0\0\0GPS 54.2 N",
    )?);
    let comment = segment(0xfe, &vec![b'x'; 65_000])?;
    while whole.len() + comment.len() + flat.len() < WEIGHS {
        whole.extend(&comment);
    }
    whole.extend(&flat[2..]);
    std::fs::write(file, &whole)?;
    Ok(whole.len() as u64)
}

/// A PNG that says it is 19,000 points square: one row of one point, its head written over.
fn bomb(file: &Path) -> anyhow::Result<()> {
    let mut png = Cursor::new(Vec::new());
    image::GrayImage::new(1, 1).write_to(&mut png, ImageFormat::Png)?;
    let mut bytes = png.into_inner();
    // Signature 8, length 4, "IHDR" 4: then width and height, and after 13 bytes in all their checksum.
    bytes[16..20].copy_from_slice(&19_000_u32.to_be_bytes());
    bytes[20..24].copy_from_slice(&19_000_u32.to_be_bytes());
    let checksum = crc32(&bytes[12..29]);
    bytes[29..33].copy_from_slice(&checksum.to_be_bytes());
    Ok(std::fs::write(file, bytes)?)
}

/// The checksum of a PNG's chunk.
fn crc32(bytes: &[u8]) -> u32 {
    let fold = |crc: u32, byte: &u8| {
        (0..8).fold(
            crc ^ u32::from(*byte),
            |crc, _| if crc & 1 == 1 { (crc >> 1) ^ 0xedb8_8320 } else { crc >> 1 },
        )
    };
    !bytes.iter().fold(u32::MAX, fold)
}

#[tokio::test]
async fn pictures_come_from_a_phone_and_what_is_none_is_refused() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.at(&server).await?;
    let job = browser.job("Lock paddle").await?;
    let folder = browser.downloads().to_owned();
    let (phone, text, small_bomb) =
        (folder.join("hook.jpg"), folder.join("letter.jpg"), folder.join("huge.png"));
    let bytes = from_a_phone(&phone)?;
    assert!((13 << 20..=20 << 20).contains(&bytes), "{bytes} bytes");
    std::fs::write(&text, "Dear owner, the hook is broken.")?;
    bomb(&small_bomb)?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.sees("Take a picture").await?;
    let input = browser.driver.find(By::Css("input[type='file']")).await?;
    let send = async |file: &Path| input.send_keys(file.to_string_lossy().into_owned()).await;

    send(&text).await?;
    browser.sees("letter.jpg: This is no picture that can be opened.").await?;
    browser.sees("a JPEG, PNG or WebP would do").await?;
    browser.press("Let go of it").await?;
    send(&small_bomb).await?;
    browser.sees("huge.png: This picture has too many points to be opened.").await?;
    browser.press("Let go of it").await?;

    // The server goes away just then: the picture waits here, and is sent once it is back.
    server.kill()?;
    send(&phone).await?;
    browser.sees("on its way").await?;
    server.start_again()?;
    browser.find(By::Css("section[aria-label='Pictures'] img[alt^='Lock paddle']")).await?;
    let view = browser.view(&job).await?;
    let pictures = view["job"]["pictures"].as_array().context("no pictures")?;
    assert_eq!(pictures.len(), 1);
    let id = pictures[0]["id"].as_str().context("no id")?;
    let script = "const [path, done] = arguments;
        fetch(path).then(async (answer) => {
          const bytes = new Uint8Array(await answer.arrayBuffer());
          const picture = await createImageBitmap(new Blob([bytes]));
          const words = new TextDecoder('latin1').decode(bytes);
          done([picture.width, picture.height, words.includes('GPS') || words.includes('Exif'), bytes.length]);
        });";
    let path = json!(format!("/api/jobs/{job}/pictures/{id}"));
    let (width, height, told, size): (u32, u32, bool, u64) =
        serde_json::from_value(browser.told_later(script, &json!([path])).await?)?;
    assert_eq!((width, height), (1500, 2000), "turned upright");
    assert!(!told, "where it was taken is forgotten");
    assert!(size < bytes / 4);

    // What it shows, and that it stands for the job.
    browser.press("All of it, open").await?;
    browser.choose("Shows", "The break").await?;
    browser.type_in("In words", "the break from above").await?;
    browser.sees("Stands for it on the rack").await?;
    browser.press("Done").await?;
    eventually("it is said", async || {
        let fields = browser.view(&job).await?["fields"].clone();
        let said = |key: String| fields[key]["typed"].as_str().unwrap_or_default().to_owned();
        Ok(said(format!("picture.{id}.shows")) == "break"
            && said(format!("picture.{id}.caption")) == "the break from above")
    })
    .await?;
    let (_, rack) = browser.fetch("GET", "/api/rack?find=paddle", Value::Null).await?;
    assert_eq!(rack["lines"][0]["face"], json!(id));
    Ok(())
}
