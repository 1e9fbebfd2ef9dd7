//! Facts about what keeps a home's record and its devices in order: tests by the button, and the lasting address of its page.

use super::{Kind, facts};
use crate::logbook::{Draft, Home, Names};
use crate::model::{Refusal, TestMonths, TestWent, TestedDevice, so_many};

facts! {
    /// A device was tested by its own button. The last test by time counts.
    DeviceTested {
        /// The device.
        device: TestedDevice,
        /// How it went.
        went: TestWent,
    }
    /// Tests come round after so many months.
    TestsSet {
        /// After how many.
        months: TestMonths,
    }
    /// The page of this home can be opened at this address for good, so it may be printed. Without one: nowhere.
    AddressGiven {
        /// `https://home.example/h/juniper-lane`.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        address: Option<String>,
    }
}

impl Kind for DeviceTested {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.test_device(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let name = match &self.device {
            TestedDevice::Breaker(breaker) => names.breaker(breaker),
            TestedDevice::Point(point) => names.point(point),
        };
        match self.went {
            TestWent::Works => format!("{name}: tested by its button, works"),
            went => format!("{name}: tested by its button, {}", went.words(false)),
        }
    }
}

impl Kind for TestsSet {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.set_tests(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let every =
            |months: u8| if months == 1 { "every month".into() } else { format!("every {}", so_many(months.into(), "month")) };
        format!("Tests: GFCI and AFCI buttons {}, alarms {}", every(self.months.buttons), every(self.months.alarms))
    }
}

impl Kind for AddressGiven {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.give_address(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        match &self.address {
            Some(address) => format!("The page of this home is at {}", address.trim()),
            None => "The page of this home has no lasting address".into(),
        }
    }
}
