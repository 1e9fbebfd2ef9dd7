//! What the owner pays for what goes into a panel.

/// Something that has a price.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum PriceOf {
    OnePole,
    OnePoleGfci,
    OnePoleAfci,
    OnePoleDual,
    TwoPole,
    TwoPoleGfci,
    TwoPoleAfci,
    TwoPoleDual,
    Tandem,
    /// To lengthen one wire.
    Extension,
    /// To join two circuits.
    Pigtail,
    /// … where their neutrals are joined, too.
    NeutralPigtail,
    /// With its feeder.
    SubPanel,
    /// For each pole that goes to it.
    SubPanelWire,
    /// For one visit.
    Electrician,
}

impl PriceOf {
    /// All, as they stand in a list.
    pub const ALL: [Self; 15] = {
        use PriceOf::*;
        [
            OnePole,
            OnePoleGfci,
            OnePoleAfci,
            OnePoleDual,
            TwoPole,
            TwoPoleGfci,
            TwoPoleAfci,
            TwoPoleDual,
            Tandem,
            Extension,
            Pigtail,
            NeutralPigtail,
            SubPanel,
            SubPanelWire,
            Electrician,
        ]
    };

    /// As it stands in a list.
    pub const fn words(self) -> &'static str {
        match self {
            Self::OnePole => "one-pole breaker",
            Self::OnePoleGfci => "one-pole GFCI breaker",
            Self::OnePoleAfci => "one-pole AFCI breaker",
            Self::OnePoleDual => "one-pole dual-function breaker",
            Self::TwoPole => "two-pole breaker",
            Self::TwoPoleGfci => "two-pole GFCI breaker",
            Self::TwoPoleAfci => "two-pole AFCI breaker",
            Self::TwoPoleDual => "two-pole dual-function breaker",
            Self::Tandem => "tandem",
            Self::Extension => "wire and connector to lengthen one wire",
            Self::Pigtail => "pigtail and connector to join two circuits",
            Self::NeutralPigtail => "pigtail and connector to join their neutrals",
            Self::SubPanel => "sub-panel with its feeder",
            Self::SubPanelWire => "wire of one pole to a sub-panel",
            Self::Electrician => "visit of an electrician",
        }
    }
}
