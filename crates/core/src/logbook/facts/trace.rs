//! Facts that a trace writes: handles moved, looks, readings, tones, devices worked.

use super::{Act, Done, Kind, facts};
use crate::logbook::{Draft, Home, Names};
use crate::model::{BreakerId, Change, EntryId, PointId, Refusal, Seen, Since, State, Worked, state_word};

facts! {
    /// The handle was moved, or moved by itself.
    BreakerSwitched {
        /// The breaker.
        breaker: BreakerId,
        /// Where it stands now.
        to: State,
    }
    /// The point was looked at, with the breakers as they stood.
    PointSeen {
        /// The point.
        point: PointId,
        /// Lit or dark.
        seen: Seen,
        /// The switching that the observer's screen knew of; without it, as the logbook has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        since: Option<Since>,
        /// The point was found anew by its place and name, and not looked at again where one stood: then it is not the wrong
        /// point twice over.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        anew: bool,
    }
    /// A meter was held to the point, with the breakers as they stood. What it shows says whether the point is lit, dark or
    /// neither; see [`crate::metered`].
    VoltsRead {
        /// The point.
        point: PointId,
        /// Volts from hot to neutral; at 240 V from hot to hot. 0 to 1000.
        volts: f64,
        /// The switching that the observer's screen knew of; without it, as the logbook has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        since: Option<Since>,
    }
    /// A point that was lit was watched while this breaker, which was on, was switched off and on again.
    ChangeWatched {
        /// The point.
        point: PointId,
        /// The breaker; it is on again.
        breaker: BreakerId,
        /// What the point did.
        saw: Change,
        /// The switching that the observer's screen knew of; without it, as the logbook has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        since: Option<Since>,
    }
    /// The point could not be looked at, with the breakers as they stood.
    PointSkipped {
        /// The point.
        point: PointId,
        /// Why.
        #[serde(default)]
        reason: String,
        /// The switching that the observer's screen knew of; without it, as the logbook has it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        since: Option<Since>,
    }
    /// A tone sender plugged in at the point was heard loudest at this breaker. A clue, no proof.
    ToneHeard {
        /// Where it was plugged in; never at 240 V.
        point: PointId,
        /// Where it was loudest.
        breaker: BreakerId,
    }
    /// The house had no power for a moment, and has it again. What was dark since the last moment that is still sure does not
    /// count any more; nothing is struck out, and what was proven by other looks, too, stays so.
    PowerBlinked {
        /// What showed it: lamps flickered, clocks blink.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        note: String,
    }
    /// The handle of this line was another one. What was seen from then until that handle is next said to move does not count any more;
    /// nothing is struck out, and what was proven by other looks, too, stays so. Where it was not said to move since, it stands again as
    /// it stood before that line.
    WrongHandle {
        /// The line of the switching.
        line: EntryId,
    }
    /// A device at a point was worked: something other than a breaker that makes points lit or dark.
    DeviceWorked {
        /// The device.
        device: PointId,
        /// How.
        worked: Worked,
    }
}

impl Kind for BreakerSwitched {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.switch_breaker(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let breaker = names.breaker(&self.breaker);
        match self.to {
            State::Tripped => format!("{breaker} tripped"),
            to => format!("{breaker} switched {}", state_word(to)),
        }
    }
}

impl Done for BreakerSwitched {
    fn act(&self) -> Act<'_> {
        Act::Switched(&self.breaker, self.to)
    }
}

impl Kind for PointSeen {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.see_point(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{}: {}", names.point(&self.point), if self.seen == Seen::Lit { "lit" } else { "dark" })
    }
}

impl Done for PointSeen {
    fn act(&self) -> Act<'_> {
        Act::Looked(&self.point)
    }
}

impl Kind for VoltsRead {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.read_volts(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{}: {} V", names.point(&self.point), self.volts)
    }
}

impl Done for VoltsRead {
    fn act(&self) -> Act<'_> {
        Act::Looked(&self.point)
    }
}

impl Kind for ChangeWatched {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.watch_change(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let breaker = names.breaker(&self.breaker).to_lowercase();
        format!("{}: {} as {breaker} was switched off and on", names.point(&self.point), self.saw.words())
    }
}

impl Done for ChangeWatched {
    fn act(&self) -> Act<'_> {
        Act::Watched(&self.point)
    }
}

impl Kind for PointSkipped {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.skip_point(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let point = names.point(&self.point);
        match self.reason.as_str() {
            "" => format!("{point}: skipped"),
            reason => format!("{point}: skipped, {reason}"),
        }
    }
}

impl Done for PointSkipped {
    fn act(&self) -> Act<'_> {
        Act::PassedOver(&self.point)
    }
}

impl Kind for ToneHeard {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.hear_tone(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{}: tone heard at {}", names.point(&self.point), names.breaker(&self.breaker).to_lowercase())
    }
}

impl Done for ToneHeard {
    fn act(&self) -> Act<'_> {
        Act::FollowedTone(&self.point)
    }
}

impl Kind for PowerBlinked {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.power_blinked(self, entry.at)
    }
    fn words(&self, _: &Names<'_>) -> String {
        match self.note.as_str() {
            "" => "The power blinked".into(),
            note => format!("The power blinked: {note}"),
        }
    }
}

impl Kind for WrongHandle {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.wrong_handle(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        names.about_line("It was another handle:", &self.line)
    }
}

impl Kind for DeviceWorked {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.work_device(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let worked = match self.worked {
            Worked::Tripped => "tripped with its test button",
            Worked::Reset => "reset",
            Worked::FoundTripped => "found tripped, and reset",
            Worked::SwitchedOn => "switched on",
            Worked::NewLamp => "a new lamp put in",
        };
        format!("{}: {worked}", names.point(&self.device))
    }
}

impl Done for DeviceWorked {
    fn act(&self) -> Act<'_> {
        Act::Worked(&self.device)
    }
}
