//! What the list says of each home. It follows from the lines, and is kept beside them, so that a list of a thousand homes opens none.

use std::sync::LazyLock;
use std::time::UNIX_EPOCH;

use wayfinder_core::{LetterAbout, Moment, Progress, Recipe, letter, progress};

use crate::COMMIT;
use crate::desk::Opened;

/// What the list says of a home.
#[derive(Debug, Clone, serde::Serialize, serde::Deserialize)]
pub(crate) struct Summary {
    pub(crate) name: String,
    /// Its panels, in words: `Main panel, 24 spaces`.
    pub(crate) panels: Vec<String>,
    pub(crate) progress: Progress,
    /// What it is drawn from, where it is a made-up house.
    pub(crate) practice: Option<Recipe>,
    /// The worst that is known of it; none of made-up houses.
    pub(crate) worst: Option<HomeWorst>,
    /// The last line of its logbook.
    pub(crate) seq: u64,
    /// When that was written.
    pub(crate) written: Option<Moment>,
}

/// The worst that is known of a home, as its front page has it.
#[derive(Debug, Clone, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub(crate) struct HomeWorst {
    /// As a sentence: `24 has tripped`.
    pub(crate) title: String,
    /// What stands in the margin: `Dark now`.
    pub(crate) margin: String,
    /// What it is about.
    pub(crate) about: LetterAbout,
}

impl Summary {
    pub(crate) fn of(opened: &Opened) -> Self {
        let home = &opened.study;
        let letter = home.practice().is_none().then(|| letter(home));
        let worst = letter.and_then(|letter| {
            let line = letter.lines.first()?;
            Some(HomeWorst { title: letter.title.clone(), margin: line.margin.clone(), about: line.about })
        });
        Self {
            name: home.name().unwrap_or_default().to_owned(),
            panels: home.panels().all().map(|panel| format!("{}, {} spaces", panel.name, panel.spaces)).collect(),
            progress: progress(home),
            practice: home.practice(),
            worst,
            seq: opened.book.seq(),
            written: opened.book.lines().last().map(|line| line.entry.at),
        }
    }
}

/// This very build of the program: another one may say something else of the same lines.
pub(crate) fn build() -> &'static str {
    static BUILD: LazyLock<String> = LazyLock::new(|| {
        let file = std::env::current_exe().and_then(std::fs::metadata).ok();
        let made = file.as_ref().and_then(|file| file.modified().ok()?.duration_since(UNIX_EPOCH).ok());
        let (bytes, made) = (file.map_or(0, |file| file.len()), made.unwrap_or_default().as_millis());
        format!("{} {COMMIT} {bytes} {made}", env!("CARGO_PKG_VERSION"))
    });
    &BUILD
}
