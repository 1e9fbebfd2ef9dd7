//! One struct a screen: what a person does there, and what it says. What stands around every screen is [`Page`]'s own (`frame.rs`).

mod checks;
mod directory;
mod find;
mod frame;
mod homes;
mod house;
mod loads;
mod logbook;
mod overview;
mod panel;
mod plan;
mod practice;
mod trace;
mod trips;
mod work;

pub use checks::Checks;
pub use directory::{Book, Directory, Stickers, Tests};
pub use find::Find;
pub use homes::Homes;
pub use house::House;
pub use loads::Loads;
pub use logbook::LogbookScreen;
pub use overview::Overview;
pub use panel::Panel;
pub use plan::PlanScreen;
pub use practice::{Practice, said};
pub use trace::Trace;
pub use trips::Trips;
pub use work::{JobAt, Work};

use crate::Page;

/// Methods that wait until a part of the screen says these words: `name: its place in the page`.
macro_rules! says {
    ($($(#[$doc:meta])* $name:ident: $css:literal;)*) => {
        $(
            $(#[$doc])*
            pub async fn $name(&self, words: &str) -> anyhow::Result<()> {
                $crate::Page::wait_text(self.as_ref(), thirtyfour::By::Css($css), words).await
            }
        )*
    };
}
pub(crate) use says;

/// A screen is looked at through its window.
macro_rules! screens {
    ($($screen:ident),*) => {
        $(impl AsRef<Page> for $screen<'_> {
            fn as_ref(&self) -> &Page {
                self.0
            }
        })*
    };
}
screens!(
    Book,
    Checks,
    Directory,
    Find,
    Homes,
    House,
    Loads,
    LogbookScreen,
    Panel,
    PlanScreen,
    Practice,
    Stickers,
    Tests,
    Trace,
    Trips,
    Work
);

impl AsRef<Page> for Page {
    fn as_ref(&self) -> &Page {
        self
    }
}

/// Every screen of a home: its address behind the home's, and what is there once it is drawn.
pub const EVERY_SCREEN: [(&str, &str); 28] = [
    ("/overview", "[data-testid=letter] li"),
    ("/panel", "[data-testid=fingerpost]"),
    ("/panel/greenhouse-panel?at=s:7", "[data-testid=fingerpost]"),
    ("/checks", "[data-testid=findings]"),
    ("/house", "[data-testid=plan]"),
    ("/house?at=p:kitchen-counter-by-the-sink", "[data-testid=point-facts]"),
    ("/house?at=r:kitchen", "[data-testid=room-facts]"),
    ("/house/walk/kitchen", "[data-testid=walk]"),
    ("/house/list", "[data-testid=points]"),
    ("/trace", "[data-testid=panel-side]"),
    ("/loads", "[data-testid=circuits] li"),
    ("/loads/circuit/breaker-11", "[data-testid=sentence]"),
    ("/loads/service", "[data-testid=sheet]"),
    ("/loads/survey", "[data-testid=survey-title]"),
    ("/loads/usage", "[data-testid=usage-title]"),
    ("/loads/enter/kitchen", "[aria-label='Points of the room']"),
    ("/work", "h1"),
    ("/work?wish=20+A+circuit+for+the+freezer+that+takes+8+A", "[data-testid=work-title]"),
    ("/work/size", "[data-testid=size-title]"),
    ("/directory", "[data-testid=card]"),
    ("/stickers", "[data-testid=first-sheet]"),
    ("/tests", "[data-testid=tests] li"),
    ("/book", "[role=group][aria-label=Parts]"),
    ("/logbook", "[data-testid=logbook] li"),
    ("/trips", "form[aria-label='What is wrong']"),
    ("/practice", "[data-testid=lessons] li"),
    ("/practice/panel", "[data-testid=power-way] li"),
    ("/more", "nav[aria-label='Other workspaces']"),
];

impl Page {
    /// Waits until the screen of this address is drawn.
    pub async fn drawn(&self, path: &str) -> anyhow::Result<()> {
        let ready = EVERY_SCREEN.iter().find(|(known, _)| *known == path).map_or("h1", |(_, ready)| *ready);
        self.find(thirtyfour::By::Css(ready)).await.map(drop)
    }
}
