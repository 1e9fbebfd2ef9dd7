// Generated from the core by `cargo xtask types`.
export const LISTS = {
  "factVersion": 6,
  "factKinds": [
    "home_described",
    "rules_chosen",
    "panel_described",
    "panel_removed",
    "leg_read",
    "filler_seen",
    "breaker_placed",
    "breaker_moved",
    "breakers_joined",
    "neutral_shared",
    "breaker_removed",
    "breaker_kept",
    "breaker_switched",
    "label_claimed",
    "room_placed",
    "room_removed",
    "units_chosen",
    "floor_placed",
    "room_drawn",
    "opening_placed",
    "opening_removed",
    "stairs_placed",
    "stairs_removed",
    "panel_stands",
    "backdrop_laid",
    "backdrop_removed",
    "point_placed",
    "point_removed",
    "point_stands",
    "switch_controls",
    "gfci_protects",
    "point_seen",
    "volts_read",
    "point_skipped",
    "tone_heard",
    "device_worked",
    "trace_set",
    "practice_house",
    "photo_taken",
    "finding_set_aside",
    "line_struck",
    "line_restored"
  ],
  "underASwitching": [
    "point_seen",
    "volts_read",
    "point_skipped"
  ],
  "editions": [
    [
      "nec2017",
      "United States, NEC 2017"
    ],
    [
      "nec2020",
      "United States, NEC 2020"
    ],
    [
      "nec2023",
      "United States, NEC 2023"
    ],
    [
      "cec2021",
      "Canada, CEC 2021"
    ],
    [
      "cec2024",
      "Canada, CEC 2024"
    ]
  ],
  "faces120": [
    "5-15",
    "5-20",
    "5-30",
    "L5-30",
    "TT-30"
  ],
  "faces240": [
    "6-15",
    "6-20",
    "6-30",
    "6-50",
    "10-30",
    "10-50",
    "14-30",
    "14-50",
    "14-60",
    "L14-30"
  ],
  "wires": [
    [
      "14 copper",
      "14 AWG copper"
    ],
    [
      "12 copper",
      "12 AWG copper"
    ],
    [
      "10 copper",
      "10 AWG copper"
    ],
    [
      "8 copper",
      "8 AWG copper"
    ],
    [
      "6 copper",
      "6 AWG copper"
    ],
    [
      "4 copper",
      "4 AWG copper"
    ],
    [
      "3 copper",
      "3 AWG copper"
    ],
    [
      "2 copper",
      "2 AWG copper"
    ],
    [
      "1 copper",
      "1 AWG copper"
    ],
    [
      "1/0 copper",
      "1/0 AWG copper"
    ],
    [
      "2/0 copper",
      "2/0 AWG copper"
    ],
    [
      "3/0 copper",
      "3/0 AWG copper"
    ],
    [
      "4/0 copper",
      "4/0 AWG copper"
    ],
    [
      "250 copper",
      "250 kcmil copper"
    ],
    [
      "300 copper",
      "300 kcmil copper"
    ],
    [
      "350 copper",
      "350 kcmil copper"
    ],
    [
      "400 copper",
      "400 kcmil copper"
    ],
    [
      "500 copper",
      "500 kcmil copper"
    ],
    [
      "12 aluminum",
      "12 AWG aluminum"
    ],
    [
      "10 aluminum",
      "10 AWG aluminum"
    ],
    [
      "8 aluminum",
      "8 AWG aluminum"
    ],
    [
      "6 aluminum",
      "6 AWG aluminum"
    ],
    [
      "4 aluminum",
      "4 AWG aluminum"
    ],
    [
      "3 aluminum",
      "3 AWG aluminum"
    ],
    [
      "2 aluminum",
      "2 AWG aluminum"
    ],
    [
      "1 aluminum",
      "1 AWG aluminum"
    ],
    [
      "1/0 aluminum",
      "1/0 AWG aluminum"
    ],
    [
      "2/0 aluminum",
      "2/0 AWG aluminum"
    ],
    [
      "3/0 aluminum",
      "3/0 AWG aluminum"
    ],
    [
      "4/0 aluminum",
      "4/0 AWG aluminum"
    ],
    [
      "250 aluminum",
      "250 kcmil aluminum"
    ],
    [
      "300 aluminum",
      "300 kcmil aluminum"
    ],
    [
      "350 aluminum",
      "350 kcmil aluminum"
    ],
    [
      "400 aluminum",
      "400 kcmil aluminum"
    ],
    [
      "500 aluminum",
      "500 kcmil aluminum"
    ]
  ]
} as const;
