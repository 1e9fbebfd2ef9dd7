//! Which edition of the rules is cited, and which section of it.

/// The edition of the code that findings are worded by: “today's rule”. Old work is not judged by it as a
/// fault of its time: what held when it was built is unknown to us.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Edition {
    /// United States, 2017.
    Nec2017,
    /// United States, 2020.
    #[default]
    Nec2020,
    /// United States, 2023.
    Nec2023,
    /// Canada, 2021.
    Cec2021,
    /// Canada, 2024.
    Cec2024,
}

impl Edition {
    /// Every edition, the oldest of each country first.
    pub const ALL: [Self; 5] = [Self::Nec2017, Self::Nec2020, Self::Nec2023, Self::Cec2021, Self::Cec2024];

    /// Whether it is one of the Canadian code, which is a set of rules of its own.
    pub const fn is_canadian(self) -> bool {
        matches!(self, Self::Cec2021 | Self::Cec2024)
    }

    /// `United States, NEC 2020`: as it is chosen.
    pub fn words(self) -> String {
        format!("{}, {}", if self.is_canadian() { "Canada" } else { "United States" }, self.name())
    }

    /// `NEC 2020`.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Nec2017 => "NEC 2017",
            Self::Nec2020 => "NEC 2020",
            Self::Nec2023 => "NEC 2023",
            Self::Cec2021 => "CEC 2021",
            Self::Cec2024 => "CEC 2024",
        }
    }
}

/// What the Canadian code says of a matter, as far as it is known here.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum InCanada {
    /// It has this section, from memory.
    Section(&'static str),
    /// It has the same rule; the section is remembered with less than certainty.
    Perhaps(&'static str),
    /// It holds there, too, by what is printed on the equipment or by what the currents do; the section is not known here.
    Holds,
    /// What it says is not known here, so nothing is said about this matter: in words.
    NotKnown(&'static str),
}

/// The sections that a rule comes from, edition by edition, all from memory.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Sections {
    /// By NEC 2017, 2020 and 2023; `None` for a rule of Canada alone.
    nec: Option<[&'static str; 3]>,
    canada: InCanada,
}

impl Sections {
    /// The same section in every edition of the NEC.
    pub(crate) const fn nec(section: &'static str, canada: InCanada) -> Self {
        Self { nec: Some([section, section, section]), canada }
    }

    /// Other sections in other editions of the NEC.
    pub(crate) const fn moved(nec: [&'static str; 3], canada: InCanada) -> Self {
        Self { nec: Some(nec), canada }
    }

    /// A rule of Canada alone.
    pub(crate) const fn canada(section: &'static str) -> Self {
        Self { nec: None, canada: InCanada::Section(section) }
    }

    /// How this edition is cited; `None` where it has no such rule, or it is not known what it says.
    pub(crate) fn cite(&self, edition: Edition) -> Option<String> {
        let name = edition.name();
        let nth = match edition {
            Edition::Nec2017 => 0,
            Edition::Nec2020 => 1,
            Edition::Nec2023 => 2,
            Edition::Cec2021 | Edition::Cec2024 => {
                return match self.canada {
                    InCanada::Section(section) => Some(format!("{name} {section}, from memory; local code comes first")),
                    InCanada::Perhaps(section) => {
                        Some(format!("{name} {section} (?), from memory and less than sure: look it up; local code comes first"))
                    }
                    InCanada::Holds => {
                        Some(format!("{name} has a section for this that is not known here: look it up; local code comes first"))
                    }
                    InCanada::NotKnown(_) => None,
                };
            }
        };
        self.nec.map(|sections| format!("{name} {}, from memory; local code comes first", sections[nth]))
    }

    /// What is not judged by this edition because it is not known here.
    pub(crate) fn not_known(&self, edition: Edition) -> Option<&'static str> {
        match self.canada {
            InCanada::NotKnown(matter) if edition.is_canadian() => Some(matter),
            _ => None,
        }
    }
}
