//! Tests by the button and the lasting address, as the logbook has them.

use std::collections::BTreeMap;

use super::{Home, refuse};
use crate::logbook::{AddressGiven, DeviceTested, Draft, TestsSet};
use crate::model::{Moment, PointKind, Protection, Refusal, RefusalCode, TestMonths, TestWent, TestedDevice};

/// What keeps a home in order.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Upkeep {
    pub(in crate::logbook) tests: BTreeMap<TestedDevice, (Moment, TestWent)>,
    months: TestMonths,
    address: Option<String>,
}

impl Upkeep {
    /// When the device was last tested by its button, and how that went.
    pub fn last_test(&self, device: &TestedDevice) -> Option<(Moment, TestWent)> {
        self.tests.get(device).copied()
    }
    /// After how many months tests come round.
    pub fn months(&self) -> TestMonths {
        self.months
    }
    /// Where the home's page can be opened for good.
    pub fn address(&self) -> Option<&str> {
        self.address.as_deref()
    }
}

/// An address longer than this needs a code of so many squares that a camera in a cellar does not read it from a card.
const LONGEST_ADDRESS: usize = 100;

impl Home {
    pub(in crate::logbook) fn test_device(&mut self, f: &DeviceTested, entry: &Draft) -> Result<(), Refusal> {
        let (name, has_button, alarm) = match &f.device {
            TestedDevice::Breaker(id) => {
                let breaker = self.panels.known_breaker(id)?;
                (format!("Breaker {}", breaker.number()), breaker.protection != Protection::Standard, false)
            }
            TestedDevice::Point(id) => {
                let point = self.house.known_point(id)?;
                let alarm = point.kind == PointKind::Alarm;
                (self.house.place(id), alarm || point.details.gfci, alarm)
            }
        };
        if !has_button {
            return refuse(
                RefusalCode::DoesNotFit,
                "device",
                format!("{name} has no test button."),
                "Record a GFCI or AFCI breaker, a GFCI receptacle or an alarm as such first.",
            );
        }
        let fits = match f.went {
            TestWent::Works => true,
            TestWent::Silent => alarm,
            TestWent::NoTrip | TestWent::NoReset => !alarm,
        };
        if !fits {
            let (wrong, fix) = if alarm {
                ("An alarm does not trip.", "Say whether it sounded.")
            } else {
                ("Only an alarm sounds.", "Say whether it tripped, and whether it stayed reset.")
            };
            return refuse(RefusalCode::DoesNotFit, "went", wrong, fix);
        }
        if self.upkeep.last_test(&f.device).is_none_or(|(at, _)| at <= entry.at) {
            self.upkeep.tests.insert(f.device.clone(), (entry.at, f.went));
        }
        Ok(())
    }

    pub(in crate::logbook) fn set_tests(&mut self, f: &TestsSet) -> Result<(), Refusal> {
        for months in [f.months.buttons, f.months.alarms] {
            if !(1..=12).contains(&months) {
                return refuse(
                    RefusalCode::OutOfRange,
                    "months",
                    format!("Tests cannot come round every {months} months."),
                    "Give 1 to 12 months.",
                );
            }
        }
        self.upkeep.months = f.months;
        Ok(())
    }

    pub(in crate::logbook) fn give_address(&mut self, f: &AddressGiven) -> Result<(), Refusal> {
        let Some(address) = f.address.as_deref().map(str::trim) else {
            self.upkeep.address = None;
            return Ok(());
        };
        let rest = ["https://", "http://"].iter().find_map(|scheme| address.strip_prefix(scheme));
        let is_one = rest.is_some_and(|rest| !rest.is_empty() && !rest.starts_with(['/', '?', '#', ':']))
            && address
                .chars()
                .all(|c| c.is_ascii_graphic() && !matches!(c, '"' | '<' | '>' | '\\' | '^' | '`' | '{' | '|' | '}'));
        if !is_one {
            return refuse(
                RefusalCode::OutOfRange,
                "address",
                "That is not the address of a page.",
                "Copy it from the browser's address bar: it begins with https:// or http:// and holds no blank.",
            );
        }
        let host = rest.unwrap_or_default().split(['/', ':', '?', '#']).next().unwrap_or_default();
        if host.eq_ignore_ascii_case("localhost")
            || host.starts_with("127.")
            || rest.is_some_and(|rest| rest.starts_with("[::1]"))
        {
            return refuse(
                RefusalCode::DoesNotFit,
                "address",
                "This address works on this machine alone.",
                "Open the home network first (Share), and give the address that a phone in the house uses.",
            );
        }
        if address.len() > LONGEST_ADDRESS {
            return refuse(
                RefusalCode::OutOfRange,
                "address",
                format!("The address has {} letters.", address.len()),
                "Give one of at most 100, so that the code on a card stays large enough for a camera.",
            );
        }
        self.upkeep.address = Some(address.to_owned());
        Ok(())
    }
}
