//! A whole home as one JSON file: its logbook, line by line. Reading back what was written gives the
//! same lines to the letter.

use std::collections::BTreeMap;

use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use wayfinder_core::{Fact, HomeId, Line, Logbook, PhotoId, Refusal};

const FORMAT: &str = "wayfinder-home";
const VERSION: u32 = 2;

/// A home as a file holds it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HomeFile {
    /// Always `wayfinder-home`.
    pub format: String,
    /// Version of this file's shape.
    pub version: u32,
    /// The home's id.
    pub home: HomeId,
    /// Every line, in order.
    pub lines: Vec<Line>,
    /// Its photos. A file without any is written as version 1, which older programs read too.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub photos: Vec<PhotoInFile>,
}

/// A photo in the file.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PhotoInFile {
    /// Its id.
    pub id: PhotoId,
    /// `image/jpeg`, `image/png` or `image/webp`.
    pub media: String,
    /// The bytes, as base64.
    pub base64: String,
}

impl PhotoInFile {
    /// For the file.
    pub fn new(id: PhotoId, media: String, bytes: &[u8]) -> Self {
        Self { id, media, base64: STANDARD.encode(bytes) }
    }

    /// Its bytes, if they are what they say.
    pub fn bytes(&self) -> Option<Vec<u8>> {
        STANDARD.decode(&self.base64).ok().filter(|bytes| photo_media(bytes) == Some(self.media.as_str()))
    }
}

/// What kind of photo these bytes are, by their beginning; `None` for anything else.
pub fn photo_media(bytes: &[u8]) -> Option<&'static str> {
    match bytes {
        [0xff, 0xd8, 0xff, ..] => Some("image/jpeg"),
        [0x89, b'P', b'N', b'G', b'\r', b'\n', 0x1a, b'\n', ..] => Some("image/png"),
        [b'R', b'I', b'F', b'F', _, _, _, _, b'W', b'E', b'B', b'P', ..] => Some("image/webp"),
        _ => None,
    }
}

/// Why a file is not taken. Nothing was changed.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum HomeFileError {
    /// Not a home file at all.
    #[error("This is no Wayfinder home file: {0}. Choose a file that “Save home as a file” wrote.")]
    NotAHomeFile(String),
    /// Written by a newer program.
    #[error("This home file has version {0}; this program reads versions up to {VERSION}. Use a newer Wayfinder.")]
    Newer(u64),
    /// A home file whose contents are damaged.
    #[error("This home file is damaged at line {line}, column {column}: {what}. Nothing was imported.")]
    Damaged {
        /// Line of the file.
        line: usize,
        /// Column of the file.
        column: usize,
        /// What was found.
        what: String,
    },
    /// The lines are out of order.
    #[error("The lines of this home file are out of order at number {0}. Nothing was imported.")]
    OutOfOrder(u64),
    /// The lines do not add up to a home.
    #[error("The lines of this home file do not add up: {0} Nothing was imported.")]
    DoesNotAddUp(#[source] Refusal),
}

/// Writes the file.
pub fn write_home_file(home: &HomeId, book: &Logbook, photos: Vec<PhotoInFile>) -> Vec<u8> {
    let version = if photos.is_empty() { 1 } else { VERSION };
    let file = HomeFile { format: FORMAT.into(), version, home: home.clone(), lines: book.lines().cloned().collect(), photos };
    let mut bytes = serde_json::to_vec_pretty(&file).expect("a logbook is JSON; anything else is a bug");
    bytes.push(b'\n');
    bytes
}

/// The same logbook without the names of those who helped, for whoever gets the home: who wrote its first line keeps theirs, everybody
/// else is `Helper`, `Helper 2` and so on, in the order in which they wrote first. What people typed into texts stays as it is.
pub fn without_helpers_names(book: &Logbook) -> Result<Logbook, Refusal> {
    let first = book.lines().next().map(|line| line.entry.by.clone()).unwrap_or_default();
    let mut names: BTreeMap<String, String> = BTreeMap::from([(first.clone(), first.clone()), (String::new(), String::new())]);
    let mut free = (1..).map(|n| if n == 1 { "Helper".to_owned() } else { format!("Helper {n}") }).filter(|name| *name != first);
    let unnamed = book.lines().cloned().map(|mut line| {
        if !names.contains_key(&line.entry.by) {
            names.insert(line.entry.by.clone(), free.next().unwrap_or_default());
        }
        line.entry.by.clone_from(&names[&line.entry.by]);
        line
    });
    Logbook::from_lines(unnamed.collect::<Vec<_>>())
}

/// Reads a file and folds its lines, so that what is returned is sound.
pub fn read_home_file(bytes: &[u8]) -> Result<(HomeFile, Logbook), HomeFileError> {
    #[derive(serde::Deserialize)]
    struct Head {
        format: String,
        version: u64,
    }
    let not = |why: &str| Err(HomeFileError::NotAHomeFile(why.into()));
    if bytes.is_empty() {
        return not("it is empty");
    }
    let head: Head = match serde_json::from_slice(bytes) {
        Ok(head) => head,
        Err(_) if std::str::from_utf8(bytes).is_err() => return not("it is not text"),
        Err(error) if error.is_syntax() || error.is_eof() => {
            return if bytes.trim_ascii_start().starts_with(b"{") && contains(bytes, FORMAT.as_bytes()) {
                Err(damaged(&error))
            } else {
                not("it is not JSON")
            };
        }
        Err(_) => return not("it does not name its format and version"),
    };
    if head.format != FORMAT {
        return not("its format is another");
    }
    if head.version > u64::from(VERSION) {
        return Err(HomeFileError::Newer(head.version));
    }
    let file: HomeFile = serde_json::from_slice(bytes).map_err(|error| damaged(&error))?;
    if let Some(line) = file.lines.iter().find(|line| line.entry.version > Fact::VERSION) {
        return Err(HomeFileError::Newer(line.entry.version.into()));
    }
    for (n, line) in (1..).zip(&file.lines) {
        if line.seq != n {
            return Err(HomeFileError::OutOfOrder(line.seq));
        }
    }
    let mut ids = std::collections::BTreeSet::new();
    if !file.lines.iter().all(|line| ids.insert(&line.entry.id)) {
        return Err(HomeFileError::Damaged { line: 0, column: 0, what: "two lines have the same id".into() });
    }
    if let Some(photo) = file.photos.iter().find(|photo| photo.bytes().is_none()) {
        return Err(HomeFileError::Damaged { line: 0, column: 0, what: format!("photo {} is not what it says", photo.id) });
    }
    let book = Logbook::from_lines(file.lines.iter().cloned()).map_err(HomeFileError::DoesNotAddUp)?;
    if book.home().name().is_none() {
        return not("it has no lines");
    }
    Ok((file, book))
}

fn contains(bytes: &[u8], needle: &[u8]) -> bool {
    bytes.windows(needle.len()).take(400).any(|window| window == needle)
}

fn damaged(error: &serde_json::Error) -> HomeFileError {
    let what = error.to_string();
    let what = what.split(" at line ").next().unwrap_or_default().to_owned();
    HomeFileError::Damaged { line: error.line(), column: error.column(), what }
}

#[cfg(test)]
mod tests {
    use super::*;

    const SMALL: &str = r#"{"format":"wayfinder-home","version":1,"home":"h","lines":[
        {"seq":1,"entry":{"id":"a","at":5,"by":"o","version":1,"fact":{"kind":"home_described","name":"Hut"}}},
        {"seq":2,"entry":{"id":"b","at":6,"by":"o","version":1,"fact":{"kind":"room_placed","room":"r","name":"Kitchen"}}}]}"#;

    #[test]
    fn photos_go_with_the_home_and_are_what_they_say() {
        let (file, book) = read_home_file(SMALL.as_bytes()).unwrap();
        let png = b"\x89PNG\r\n\x1a\nrest";
        let photo = PhotoInFile::new("p1".parse().unwrap(), "image/png".into(), png);
        let written = write_home_file(&file.home, &book, vec![photo.clone()]);
        let (again, _) = read_home_file(&written).unwrap();
        assert_eq!((again.version, again.photos[0].bytes().unwrap().as_slice()), (2, &png[..]));
        let lying = PhotoInFile { media: "image/jpeg".into(), ..photo };
        let error = read_home_file(&write_home_file(&file.home, &book, vec![lying])).unwrap_err();
        assert!(error.to_string().contains("photo p1 is not what it says"), "{error}");
    }

    #[test]
    fn a_home_that_is_handed_over_names_no_helper_and_says_the_same() {
        let book = wayfinder_fixture::homes::demo();
        let (owner, helpers) = ("Ann", ["Bo", "Helper 2", "Cy"]);
        // The first line by the owner, then by turns.
        let mut lines: Vec<Line> = book.lines().cloned().collect();
        for (n, line) in lines.iter_mut().enumerate() {
            line.entry.by = if n % 4 == 0 { owner.into() } else { helpers[n % 4 - 1].into() };
        }
        let named = Logbook::from_lines(lines).unwrap();
        let unnamed = without_helpers_names(&named).unwrap();
        let by = |n: usize| unnamed.lines().nth(n).unwrap().entry.by.clone();
        assert_eq!([by(0), by(1), by(2), by(3)], ["Ann", "Helper", "Helper 2", "Helper 3"]);
        let text = String::from_utf8(write_home_file(&"h".parse().unwrap(), &unnamed, Vec::new())).unwrap();
        assert!(!text.contains("\"Bo\"") && !text.contains("\"Cy\""));
        let says = |book: &Logbook| format!("{:?}", wayfinder_core::verdicts(&wayfinder_core::Study::from(book)));
        assert_eq!(says(&unnamed), says(&named));
        // Whoever is called so already keeps it as the owner.
        let mut lines: Vec<Line> = named.lines().take(3).cloned().collect();
        lines[0].entry.by = "Helper".into();
        let unnamed = without_helpers_names(&Logbook::from_lines(lines).unwrap()).unwrap();
        let all: Vec<_> = unnamed.lines().map(|line| line.entry.by.as_str()).collect();
        assert_eq!(all, ["Helper", "Helper 2", "Helper 3"]);
    }

    #[test]
    fn round_trip_is_exact() {
        let (file, book) = read_home_file(SMALL.as_bytes()).unwrap();
        let written = write_home_file(&file.home, &book, Vec::new());
        let (again, _) = read_home_file(&written).unwrap();
        assert_eq!(file, again);
        assert_eq!(write_home_file(&again.home, &book, Vec::new()), written);
    }

    #[test]
    fn what_is_no_home_file_is_said_to_be_none() {
        for (bytes, says) in [
            (&b""[..], "it is empty"),
            (b"\x89PNG\r\n\x1a\n\0", "it is not text"),
            (b"breaker,room\n1,kitchen", "it is not JSON"),
            (b"{\"a\":1}", "does not name its format"),
            (b"{\"format\":\"recipe\",\"version\":1}", "its format is another"),
            (b"{\"format\":\"wayfinder-home\",\"version\":9}", "version 9; this program reads versions up to 2"),
            (&SMALL.as_bytes()[..180], "damaged"),
            (SMALL.replace("\"seq\":2", "\"seq\":7").as_bytes(), "out of order at number 7"),
            (SMALL.replace("room_placed", "room_flown").as_bytes(), "damaged at line"),
            (SMALL.replace("\"id\":\"b\"", "\"id\":\"a\"").as_bytes(), "same id"),
            (SMALL.replace("Kitchen", "").as_bytes(), "do not add up: The name is missing"),
            (
                SMALL.replace("\"at\":6,\"by\":\"o\",\"version\":1", "\"at\":6,\"by\":\"o\",\"version\":99").as_bytes(),
                "version 99",
            ),
        ] {
            let error = read_home_file(bytes).expect_err(says).to_string();
            assert!(error.contains(says), "{says}: {error}");
        }
    }
}
