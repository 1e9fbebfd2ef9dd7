//! Ids are made by whoever writes a fact down (a client makes UUIDs), so a resend is harmless.
//! A copy shares the text: an id is copied more often than anything else. Each kind is a type of its own: a point's id cannot be passed where a breaker's is meant.

use std::fmt;
use std::sync::Arc;

/// Why a string is no id.
#[derive(Debug, thiserror::Error, PartialEq, Eq)]
#[error("an id has 1 to 64 letters, digits, hyphens or underscores; “{0}” has not")]
pub struct BadId(String);

macro_rules! ids {
    ($($(#[$doc:meta])* $name:ident)*) => {$(
        $(#[$doc])*
        #[derive(Clone, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Deserialize, utoipa::ToSchema)]
        #[serde(try_from = "String")]
        #[schema(value_type = String)]
        pub struct $name(Arc<str>);

        impl serde::Serialize for $name {
            fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                serializer.serialize_str(&self.0)
            }
        }

        impl $name {
            /// The id as text.
            pub fn as_str(&self) -> &str { &self.0 }
        }

        impl TryFrom<String> for $name {
            type Error = BadId;
            fn try_from(text: String) -> Result<Self, BadId> {
                let fits = (1..=64).contains(&text.len())
                    && text.bytes().all(|b| b.is_ascii_alphanumeric() || b == b'-' || b == b'_');
                if fits { Ok(Self(text.into())) } else { Err(BadId(text.chars().take(80).collect())) }
            }
        }

        impl std::str::FromStr for $name {
            type Err = BadId;
            fn from_str(text: &str) -> Result<Self, BadId> { Self::try_from(text.to_owned()) }
        }

        impl From<$name> for String {
            fn from(id: $name) -> Self { id.0.as_ref().to_owned() }
        }

        impl fmt::Display for $name {
            fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result { f.write_str(&self.0) }
        }

        impl fmt::Debug for $name {
            fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result { f.write_str(&self.0) }
        }
    )*};
}

ids! {
    /// One home: one logbook.
    HomeId
    /// One line of a logbook.
    EntryId
    /// One panel.
    PanelId
    /// One breaker (of a tandem: one of its handles).
    BreakerId
    /// One photo.
    PhotoId
    /// One room.
    RoomId
    /// One point: a receptacle, light, switch, appliance or alarm.
    PointId
    /// One door, passage or window.
    OpeningId
    /// One flight of stairs.
    StairsId
    /// One load: what uses power at a point.
    LoadId
    /// One job: work at a panel or a point, by its sheet.
    JobId
    /// One circuit that was sized.
    SizeId
    /// Something that is wrong, from the first word to what was found.
    TroubleId
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ids_take_letters_digits_and_hyphens_only() {
        assert!("kitchen-1_a".parse::<RoomId>().is_ok());
        for bad in ["", "a b", "../etc", "é", &"x".repeat(65)] {
            assert!(bad.parse::<RoomId>().is_err(), "{bad}");
        }
    }
}
