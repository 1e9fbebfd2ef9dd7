//! Which edition of the rules is cited.

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

    /// `United States, NEC 2020`: as it is chosen.
    pub fn words(self) -> String {
        let country = match self {
            Self::Nec2017 | Self::Nec2020 | Self::Nec2023 => "United States",
            Self::Cec2021 | Self::Cec2024 => "Canada",
        };
        format!("{country}, {}", self.name())
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

    /// How a section is cited. The Canadian code has sections of its own, which this program does not know:
    /// it says so rather than invent one.
    pub fn cite(self, section: &str) -> String {
        match self {
            Self::Nec2017 | Self::Nec2020 | Self::Nec2023 => {
                format!("{} {section}, from memory; local code comes first", self.name())
            }
            Self::Cec2021 | Self::Cec2024 => format!(
                "by NEC {section}, from memory; {} has its own section for this, look it up; local code comes first",
                self.name()
            ),
        }
    }
}
