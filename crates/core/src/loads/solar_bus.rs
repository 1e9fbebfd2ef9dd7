//! Solar or a battery on the bus of a panel beside its main.
//!
//! Source: NEC 705.12, from memory. 125 % of the inverter's output and the main together are no more than the bus; or no more than
//! 120 % of it, with the inverter's breaker at the far end from the main; or all breakers but the main together are no more than the bus.
//! Until the inverter's plate is read, its breaker stands for the 125 %: it is no smaller.

use crate::model::{Breaker, OtherSource, Panel, position};
use crate::study::Study;

/// What comes in beside the main, in amperes.
#[derive(Debug, Clone, PartialEq)]
pub struct SolarOnPanel<'a> {
    /// The breakers through which it comes in.
    pub sources: Vec<&'a Breaker>,
    /// The bus.
    pub bus: f64,
    /// The main.
    pub main: f64,
    /// 125 % of the inverters and the main together.
    pub total: f64,
    /// All breakers but the main together.
    pub all: f64,
    /// Every source is at the end of the bus away from the main.
    pub far: bool,
    /// An inverter's plate is not read.
    pub unread: bool,
}

impl SolarOnPanel<'_> {
    /// 120 % of the bus.
    pub fn most(&self) -> f64 {
        self.bus * 1.2
    }

    /// Whether it comes to no more than this; a hundredth of an ampere above is arithmetic, not a fault.
    pub fn is_within(&self, limit: f64) -> bool {
        self.total <= limit + 0.01
    }

    /// Whether one of the three ways allows it.
    pub fn is_allowed(&self) -> bool {
        self.is_within(self.bus) || self.is_within(self.most()) && self.far || self.all <= self.bus
    }
}

/// What comes in on this panel beside its main; `None` where nothing does, or bus or main are not read.
pub fn solar_on_panel<'a>(home: &'a Study, panel: &Panel) -> Option<SolarOnPanel<'a>> {
    let on_it: Vec<&Breaker> = home.panels().breakers_of(&panel.id).collect();
    let back_fed = on_it.iter().find(|b| b.details.back_fed_main).copied();
    let feeder = panel.details.fed_by.as_ref().and_then(|id| home.panels().breaker(id));
    let main = panel.main.or(back_fed.map(|b| b.amps)).or(feeder.map(|b| b.amps))?.value();
    let bus = panel.details.bus?.value();
    let brings_in = |b: &&Breaker| matches!(b.details.brings_in, Some(OtherSource::Solar | OtherSource::Battery));
    let sources: Vec<&Breaker> = on_it.iter().copied().filter(brings_in).collect();
    if sources.is_empty() {
        return None;
    }
    let adds = |b: &&Breaker| b.details.inverter_amps.map_or(b.amps.value(), |amps| amps.value() * 1.25);
    Some(SolarOnPanel {
        bus,
        main,
        total: main + sources.iter().map(adds).sum::<f64>(),
        all: on_it.iter().filter(|b| !b.details.back_fed_main).map(|b| b.amps.value()).sum(),
        far: sources.iter().all(|b| at_the_far_end(panel, b, back_fed)),
        unread: sources.iter().any(|b| b.details.inverter_amps.is_none()),
        sources,
    })
}

/// In the last row of its column away from the main. Where the main is not in the spaces it may be at either end.
fn at_the_far_end(panel: &Panel, source: &Breaker, back_fed: Option<&Breaker>) -> bool {
    let rows = |b: &Breaker| b.at.iter().filter_map(|slot| position(panel, slot.space)).map(|(_, row)| row).collect::<Vec<_>>();
    let of_main = back_fed.map(rows);
    let half = panel.rows() / 2;
    let own = rows(source);
    let (top, bottom) = (own.contains(&0), own.contains(&(panel.rows() - 1)));
    match of_main.and_then(|rows| rows.first().copied()) {
        None => top || bottom,
        Some(main) if main < half => bottom,
        Some(_) => top,
    }
}
