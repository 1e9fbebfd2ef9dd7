//! The home book: everything that is known of a home on paper, in parts, with a cover, contents with page numbers and links, and each
//! part alone, too.

use wayfinder_core::{
    BookPart, Card, Equipment, FittedCard, HomeBook, Printed, Study, TestWent, card, checks, home_book, panel_views, plan,
};

use crate::door_card_pdf::{draw_on, fitted_card};
use crate::findings_pdf::set_findings;
use crate::flow::{Flow, How, MARGIN, TextPage, draw};
use crate::fonts::{HEAD, TEXT};
use crate::paged::Paged;
use crate::pen::{HARM, INK, Pen, SOFT};
use crate::plan_pdf::draw_plan;
use crate::plan_sheet::{Paper, PlanRequest, PlanSheet, PlanSheetError, plan_sheet};
use crate::{CardColors, PdfError, Sheet};

/// What is to be printed.
#[derive(Debug, Clone)]
pub struct BookAsked<'a> {
    /// The parts, in the order of the book whatever their order here.
    pub parts: &'a [BookPart],
    /// Letter or A4; the card's own size counts as Letter.
    pub paper: Sheet,
    /// By what the cards are colored.
    pub colors: CardColors,
    /// When and by whom.
    pub printed: Printed<'a>,
}

/// A section: a line of the contents.
struct Section {
    title: String,
    /// It belongs to a part with several of them.
    under: Option<BookPart>,
    pages: Vec<Page>,
}

enum Page {
    Text(TextPage),
    Card(Box<(Card, FittedCard, Sheet)>),
    Plan(PlanSheet),
}

fn plain() -> How {
    How { face: &TEXT, size: 3.3, color: INK, indent: 0.0, before: 1.4, keep: false }
}

/// Makes the book. `tell` hears what is made, and how many of how many pieces are done.
pub fn home_book_pdf(home: &Study, asked: &BookAsked<'_>, tell: &mut dyn FnMut(&str, usize, usize)) -> Result<Vec<u8>, PdfError> {
    let size = asked.paper.size_mm().unwrap_or((215.9, 279.4));
    let parts: Vec<BookPart> = BookPart::ALL.into_iter().filter(|part| asked.parts.contains(part)).collect();
    let all = parts.len() + 1;
    let book = home_book(home);
    let maker = Maker { home, asked, book: &book, size };
    let mut sections: Vec<Section> = Vec::new();
    for (n, part) in parts.iter().enumerate() {
        tell(part.title(), n, all);
        sections.extend(maker.sections(*part));
    }
    tell("putting the pages together", parts.len(), all);
    let front = if parts.len() > 1 { maker.front(&sections) } else { Vec::new() };
    let mut page = front.len();
    let mut begins = Vec::new();
    for section in &sections {
        begins.push((section.title.clone(), page));
        page += section.pages.len();
    }
    // The numbers in the contents are known only now; they take no more lines than before.
    let front = if parts.len() > 1 { maker.front_with(&sections, &begins) } else { front };
    let title = format!("{}: {}", book.title, if parts.len() == 1 { parts[0].title() } else { "home book" });
    let mut paged = Paged::with_parts(&title, &begins);
    let mut number = 0;
    let mut foot = || {
        number += 1;
        format!("{title}, revision {} - page {number} of {page}", book.revision)
    };
    for text in &front {
        let foot = foot();
        paged.page(size, |pen| draw(pen, text, size, &foot))?;
    }
    for made in sections.iter().flat_map(|section| &section.pages) {
        let foot = foot();
        match made {
            Page::Text(text) => paged.page(size, |pen| draw(pen, text, size, &foot))?,
            Page::Card(made) => {
                let (card, fitted, sheet) = &**made;
                let page = sheet.size_mm().unwrap_or((card.panel.card.width_mm, card.panel.card.height_mm));
                paged.page(page, |pen| {
                    draw_on(pen, card, fitted, *sheet, asked.colors);
                    if *sheet != Sheet::Card {
                        at_the_foot(pen, &foot, page);
                    }
                    Vec::new()
                })?;
            }
            Page::Plan(sheet) => paged.page(sheet.size, |pen| {
                draw_plan(pen, sheet);
                at_the_foot(pen, &foot, sheet.size);
                Vec::new()
            })?,
        }
    }
    paged.finish()
}

/// The line at the foot of a page that holds a card or a plan.
fn at_the_foot(pen: &mut Pen<'_, '_>, foot: &str, (_, height): (f64, f64)) {
    pen.text(&TEXT, &TEXT.shown(foot), MARGIN, height - 4.0, 2.4, SOFT);
}

struct Maker<'a> {
    home: &'a Study,
    asked: &'a BookAsked<'a>,
    book: &'a HomeBook,
    size: (f64, f64),
}

impl Maker<'_> {
    fn flow(&self, title: &str) -> Flow {
        let mut flow = Flow::new(self.size.0, self.size.1);
        flow.set(title, How { face: &HEAD, size: 5.4, before: 0.0, keep: true, ..plain() });
        flow
    }

    fn sections(&self, part: BookPart) -> Vec<Section> {
        let text = |flow: Flow| vec![Section { title: part.title().into(), under: None, pages: as_pages(flow) }];
        let mut flow = self.flow(part.title());
        match part {
            BookPart::Safety => safety(&mut flow),
            BookPart::Cards => return self.cards(),
            BookPart::Plans => return self.plans(),
            BookPart::Circuits => return self.circuits(),
            BookPart::Rooms => self.rooms(&mut flow),
            BookPart::Equipment => equipment(&mut flow, &self.book.equipment),
            BookPart::Tests => self.tests(&mut flow),
            BookPart::Findings => set_findings(&mut flow, &checks(self.home)),
            BookPart::Open => self.open(&mut flow),
            BookPart::Legend => legend(&mut flow),
        }
        text(flow)
    }

    fn cards(&self) -> Vec<Section> {
        let cards = panel_views(self.home).iter().filter_map(|view| card(self.home, &view.panel.id, self.asked.printed));
        cards
            .map(|card| {
                let title = format!("Card: {}", card.panel.name);
                let paper = if self.asked.paper == Sheet::A4 { Sheet::A4 } else { Sheet::Letter };
                let pages = match fitted_card(&card, self.asked.colors) {
                    Ok(fitted) => {
                        // One that is larger than the paper is a page of its own size.
                        let sheet = if paper.holds(card.panel.card) { paper } else { Sheet::Card };
                        vec![Page::Card(Box::new((card, fitted, sheet)))]
                    }
                    Err(small) => {
                        let mut flow = self.flow(&title);
                        flow.set(&format!("{} {}", small.wrong, small.advice), plain());
                        flow.set("What would stand on it is in the list by circuit.", plain());
                        as_pages(flow)
                    }
                };
                Section { title, under: Some(BookPart::Cards), pages }
            })
            .collect()
    }

    fn plans(&self) -> Vec<Section> {
        let drawn = plan(self.home);
        let request = PlanRequest {
            home: self.book.title.clone(),
            date: self.asked.printed.date.to_owned(),
            paper: if self.asked.paper == Sheet::A4 { Paper::A4 } else { Paper::Letter },
            scale: None,
        };
        let mut sections = Vec::new();
        for floor in &drawn.floors {
            let (title, pages) = match plan_sheet(drawn, floor, &request) {
                Ok(sheet) => (format!("Plan: {}, 1:{}", floor.name, sheet.scale), vec![Page::Plan(sheet)]),
                // The list by room has what is on it.
                Err(PlanSheetError::Empty(_)) => continue,
                Err(wrong) => {
                    let title = format!("Plan: {}", floor.name);
                    let mut flow = self.flow(&title);
                    flow.set(&wrong.to_string(), plain());
                    (title, as_pages(flow))
                }
            };
            sections.push(Section { title, under: Some(BookPart::Plans), pages });
        }
        sections
    }

    fn circuits(&self) -> Vec<Section> {
        let panels = self.book.panels.iter().map(|panel| {
            let title = format!("{}: {}", BookPart::Circuits.title(), panel.name);
            let mut flow = self.flow(&title);
            flow.set(&panel.about, How { color: SOFT, before: 0.5, ..plain() });
            for circuit in &panel.circuits {
                let has_more = !circuit.points.is_empty() || !circuit.breaker.is_empty();
                flow.tagged(&circuit.number, &circuit.words, How { indent: 18.0, before: 2.0, keep: has_more, ..plain() });
                let small = How { size: 2.9, indent: 18.0, color: SOFT, before: 0.3, ..plain() };
                if !circuit.breaker.is_empty() {
                    flow.set(&circuit.breaker, How { keep: !circuit.points.is_empty(), ..small });
                }
                for (n, point) in circuit.points.iter().enumerate() {
                    // The first two stay with their circuit.
                    flow.set(point, How { indent: 22.0, color: INK, keep: n == 0 && circuit.points.len() > 1, ..small });
                }
            }
            Section { title, under: Some(BookPart::Circuits), pages: as_pages(flow) }
        });
        panels.collect()
    }

    fn rooms(&self, flow: &mut Flow) {
        flow.set("At the right of each point its breaker.", How { color: SOFT, ..plain() });
        if self.book.rooms.is_empty() {
            flow.set("No room is entered yet.", plain());
        }
        for room in &self.book.rooms {
            let heading = format!("{}, {}", room.name, room.floor);
            flow.set(&heading, How { face: &HEAD, size: 4.0, before: 4.0, keep: !room.points.is_empty(), ..plain() });
            for point in &room.points {
                let color = if point.proven { INK } else { SOFT };
                let said = format!("{}, {}", point.name, point.what);
                flow.row(&said, How { before: 0.6, indent: 4.0, color, ..plain() }, 62.0, &[(&point.on, 0.0)]);
            }
        }
    }

    fn tests(&self, flow: &mut Flow) {
        flow.set(
            "Press each button once in its months and write the day beside it; what is printed on the device goes before this. A test \
             cuts the power for a moment. One that fails protects nobody: replace it.",
            plain(),
        );
        if self.book.tests.is_empty() {
            flow.set("No device with a test button is recorded.", plain());
        }
        for test in &self.book.tests {
            let said = format!("{}: {}, {}", test.name, test.what, test.place);
            flow.row(&said, How { before: 3.0, keep: true, ..plain() }, 62.0, &[("tested on: ______________", 0.0)]);
            let small = How { size: 2.9, color: SOFT, indent: 4.0, before: 0.3, ..plain() };
            let last = match (test.last, test.went) {
                (Some(at), Some(TestWent::Works)) => format!("Last tested on {}, it worked.", day(at)),
                (Some(at), Some(_)) => format!("Tested on {}: it failed.", day(at)),
                _ => "Never tested, as far as is recorded.".into(),
            };
            let rest: Vec<&str> =
                [&last, &test.todo, &test.mind].into_iter().map(String::as_str).filter(|s| !s.is_empty()).collect();
            flow.set(&rest.join(" "), How { keep: true, ..small });
            flow.set(&test.how, small);
        }
    }

    fn open(&self, flow: &mut Flow) {
        let progress = self.book.progress;
        flow.set(&format!("{} of {} points are proven.", progress.proven, progress.points), plain());
        for open in &self.book.open {
            flow.set(&open.name, How { face: &HEAD, before: 3.0, keep: true, ..plain() });
            flow.set(&format!("{} {}", open.reason, open.advice), How { indent: 4.0, before: 0.3, ..plain() });
        }
    }

    /// Cover and contents, without the page numbers.
    fn front(&self, sections: &[Section]) -> Vec<TextPage> {
        self.front_with(sections, &[])
    }

    fn front_with(&self, sections: &[Section], begins: &[(String, usize)]) -> Vec<TextPage> {
        let mut cover = Flow::new(self.size.0, self.size.1);
        let strong = How { face: &HEAD, ..plain() };
        cover.set(&self.book.title, How { size: 11.0, before: self.size.1 / 4.0, keep: true, ..strong });
        cover.set("Home book: which breaker feeds what", How { size: 5.4, before: 3.0, color: SOFT, ..plain() });
        let Printed { date, by } = self.asked.printed;
        let by = if by.is_empty() { String::new() } else { format!(", by {by}") };
        let on = if date.is_empty() { String::new() } else { format!(", printed on {date}") };
        cover.set(&format!("Revision {}{on}{by}", self.book.revision), How { before: 8.0, ..plain() });
        let progress = self.book.progress;
        let circuits: usize = self.book.panels.iter().flat_map(|p| &p.circuits).filter(|c| !c.breaker.is_empty()).count();
        let so_many = |n: usize, what: &str| format!("{n} {what}{}", if n == 1 { "" } else { "s" });
        cover.set(
            &format!(
                "{}, {}, {} of {} proven",
                so_many(self.book.panels.len(), "panel"),
                so_many(circuits, "circuit"),
                progress.proven,
                so_many(progress.points, "point")
            ),
            plain(),
        );
        if progress.proven < progress.points {
            cover.set(
                "What is not proven is marked so on every page. It may be on any breaker: treat it as live until a meter says otherwise.",
                How { before: 6.0, ..strong },
            );
        }
        cover.set(
            "Prove dead with a meter that was tested on a live source before and after. Line-side lugs stay live with the main off. Local \
             codes and licensed practice come first.",
            How { before: 6.0, ..plain() },
        );
        if let Some(address) = self.home.upkeep().address() {
            cover.set(&format!("This home's page: {address}"), How { before: 6.0, ..plain() });
        }
        let mut contents = self.flow("Contents");
        let mut under = None;
        for (n, section) in sections.iter().enumerate() {
            if let Some(part) = section.under.filter(|part| under != Some(*part)) {
                contents.set(part.title(), How { face: &HEAD, before: 2.0, keep: true, ..plain() });
            }
            under = section.under;
            let page = begins.get(n).map_or_else(|| "000".to_owned(), |(_, page)| (page + 1).to_string());
            let how = match section.under {
                Some(_) => How { indent: 6.0, before: 0.8, ..plain() },
                None => How { face: &HEAD, before: 2.0, ..plain() },
            };
            contents.leading(&section.title, how, &page, n);
        }
        let mut pages = cover.pages();
        pages.extend(contents.pages());
        pages
    }
}

fn as_pages(flow: Flow) -> Vec<Page> {
    flow.pages().into_iter().map(Page::Text).collect()
}

/// `2026-12-01`.
fn day(at: wayfinder_core::Moment) -> String {
    chrono::DateTime::from_timestamp_millis(at.unix_ms()).map(|at| at.format("%Y-%m-%d").to_string()).unwrap_or_default()
}

fn safety(flow: &mut Flow) {
    let strong = How { face: &HEAD, before: 3.0, ..plain() };
    for (head, text) in [
        (
            "Dead is what a meter says.",
            "A breaker that is off is no proof, and no list is. Test the meter on a live source, read every pair of conductors at the \
             place itself (hot to neutral, hot to ground, hot to hot), test the meter on the live source again.",
        ),
        (
            "Parts stay live with the main off.",
            "The line-side lugs and the wires to them carry the utility's power until the utility takes it away. Solar, a battery or a \
             generator may feed the panel from behind.",
        ),
        (
            "Nothing in this book asks for the cover off.",
            "Opening a panel is work for qualified people, with the main off, the cover handled by two hands, nobody alone in the house.",
        ),
        (
            "Reset once.",
            "Unplug what ran, push the handle fully off, then on. A breaker that trips again has found something: leave it off and \
             find out what.",
        ),
        ("Two circuits can share one neutral.", "Where the card says so, both breakers go off before a box of either is opened."),
        ("A plug-in tone sender never goes on 240 V.", "And a tracer's word is a hint, no proof."),
        (
            "Stop and call an electrician",
            "for heat, burn marks, a smell, buzzing, water or rust in or near the panel; for a shock; for lamps that turn brighter or \
             dimmer when something else starts; for fuses, aluminum wires or anything here that you do not know.",
        ),
    ] {
        flow.set(head, How { keep: true, ..strong });
        flow.set(text, How { before: 0.5, ..plain() });
    }
    flow.set(
        "NEC 408.4(A), from memory, asks that every circuit is identified by its clear, evident and specific purpose. Local codes and \
         licensed practice come first.",
        How { before: 5.0, color: SOFT, ..plain() },
    );
}

/// The columns of the schedule: heading, and where each ends before the right margin.
const COLUMNS: [(&str, f64); 8] = [
    ("Breaker", 115.0),
    ("Volts", 104.0),
    ("Ph.", 97.0),
    ("Min. A", 83.0),
    ("Max. A", 70.0),
    ("Wire", 47.0),
    ("Neutral", 35.0),
    ("Conductors", 0.0),
];

fn equipment(flow: &mut Flow, all: &[Equipment]) {
    flow.set(
        "What the breaker alone does not tell the wire of. Min. A: minimum circuit ampacity of the data plate, the wire carries at least \
         this. Max. A: largest fuse or breaker of the data plate. Neutral and conductors are what the face of the receptacle takes; \
         nobody has looked into the box for them. A dash: \
         not read.",
        plain(),
    );
    if all.is_empty() {
        flow.set("No equipment is entered yet.", plain());
        return;
    }
    let small = How { size: 2.5, before: 1.2, ..plain() };
    let room = 134.0;
    flow.row("Equipment", How { face: &HEAD, before: 4.0, keep: true, ..small }, room, &COLUMNS);
    for one in all {
        let read = |text: &str| if text.is_empty() { "-".to_owned() } else { text.to_owned() };
        let cells = [
            &one.breaker,
            &one.volts,
            &one.phases,
            &one.minimum_ampacity,
            &one.largest_breaker,
            &one.wire,
            &one.neutral,
            &one.conductors,
        ]
        .map(|text| read(text));
        let figures: Vec<(&str, f64)> = cells.iter().zip(COLUMNS).map(|(text, (_, end))| (text.as_str(), end)).collect();
        flow.row(&one.name, small, room, &figures);
    }
}

fn legend(flow: &mut Flow) {
    for (mark, text) in [
        ("5-7", "A breaker by the numbers of its spaces; 14a and 14b are the halves of one space."),
        ("G3", "A breaker of another panel: the panel's letter, then its number there."),
        ("not proven", "Nobody has seen it go dark with that breaker alone off. What the old card says stands beside it."),
        ("perhaps 13", "The likeliest by what was seen so far. It is a guess to go and look at, nothing to rely on."),
        ("Unused", "A space without a breaker. Spare: a breaker with nothing on it."),
        ("≠", "Own words that no longer match what is proven."),
        ("H C L M R", "What the biggest load does: heat, cool, light, motor, other."),
        ("GFCI", "It trips at a small current to ground; where it is reset stands beside it."),
        ("AFCI", "It trips at an arc in the wires."),
        ("Min. A, Max. A", "Minimum circuit ampacity and largest fuse or breaker of a data plate."),
    ] {
        flow.tagged(mark, text, How { indent: 34.0, before: 2.0, ..plain() });
    }
    flow.set("The symbols of a plan are explained on its own sheet.", How { before: 4.0, color: SOFT, ..plain() });
    flow.set("Danger is marked in dark red, and always in words, too.", How { color: HARM, ..plain() });
}
