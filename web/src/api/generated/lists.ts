// Generated from the core by `cargo xtask types`.
export const LISTS = {
  "factVersion": 11,
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
    "change_watched",
    "point_skipped",
    "tone_heard",
    "power_blinked",
    "wrong_handle",
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
    "change_watched",
    "point_skipped"
  ],
  "severities": [
    [
      "danger",
      "Danger"
    ],
    [
      "fault",
      "Against today's rule"
    ],
    [
      "note",
      "Worth knowing"
    ],
    [
      "planned",
      "Today's rule by place, for planned work"
    ]
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
      "600 copper",
      "600 kcmil copper"
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
    ],
    [
      "600 aluminum",
      "600 kcmil aluminum"
    ]
  ],
  "cables": [
    [
      "not_read",
      "not looked at"
    ],
    [
      "nm",
      "NM cable: the 60 °C column"
    ],
    [
      "armored",
      "armored or metal-clad"
    ],
    [
      "conduit",
      "in conduit"
    ],
    [
      "se",
      "service-entrance cable (SE)"
    ],
    [
      "uf",
      "underground feeder (UF): the 60 °C column"
    ],
    [
      "cloth",
      "rubber and cloth"
    ],
    [
      "knob_and_tube",
      "knob-and-tube"
    ]
  ],
  "terminals": [
    [
      "unread",
      "not read"
    ],
    [
      "read_75c",
      "75 °C on wire and terminal, both read"
    ]
  ],
  "protections": [
    [
      "standard",
      "Standard"
    ],
    [
      "gfci",
      "GFCI"
    ],
    [
      "afci",
      "AFCI"
    ],
    [
      "dual_function",
      "Dual function"
    ]
  ],
  "housings": [
    [
      "full",
      "full size"
    ],
    [
      "tandem",
      "tandem"
    ],
    [
      "quad",
      "quad"
    ],
    [
      "slim",
      "slim"
    ]
  ],
  "ties": [
    [
      "common_trip",
      "one mechanism, common trip"
    ],
    [
      "handle",
      "handle tie"
    ]
  ],
  "neutralLeads": [
    [
      "pigtail",
      "pigtail to the bar"
    ],
    [
      "plug_on",
      "plugs onto the rail"
    ]
  ],
  "services": [
    [
      "split_phase",
      "Split-phase 120/240 V"
    ],
    [
      "two_legs_208",
      "Two legs of 208Y/120 V"
    ],
    [
      "three_phase",
      "Three-phase 208Y/120 V"
    ],
    [
      "high_leg",
      "Three-phase with a high leg: for an electrician"
    ],
    [
      "one_leg_120",
      "120 V only"
    ]
  ],
  "interiors": [
    [
      "breakers",
      "Breakers"
    ],
    [
      "split_bus",
      "Split bus, no single main: for an electrician"
    ],
    [
      "fuses",
      "Fuses: for an electrician"
    ]
  ],
  "mains": [
    [
      "not_read",
      "not looked at"
    ],
    [
      "inside",
      "in this panel"
    ],
    [
      "beside",
      "in a cabinet beside it"
    ],
    [
      "outside",
      "outdoors"
    ],
    [
      "lugs",
      "none: main-lug"
    ]
  ],
  "disconnects": [
    [
      "here",
      "in this panel"
    ],
    [
      "ahead",
      "ahead of this panel"
    ]
  ],
  "bonds": [
    [
      "joined",
      "joined"
    ],
    [
      "apart",
      "apart"
    ]
  ],
  "sources": [
    [
      "standby_generator",
      "Standby generator"
    ],
    [
      "portable_generator",
      "Portable generator"
    ],
    [
      "battery",
      "Battery"
    ],
    [
      "solar",
      "Solar"
    ],
    [
      "transfer_switch",
      "Transfer switch"
    ],
    [
      "second_service",
      "Second service"
    ]
  ],
  "pointKinds": [
    [
      "receptacle",
      "Receptacle"
    ],
    [
      "light",
      "Light"
    ],
    [
      "switch",
      "Switch"
    ],
    [
      "appliance",
      "Appliance"
    ],
    [
      "alarm",
      "Alarm"
    ],
    [
      "fan",
      "Fan"
    ],
    [
      "junction_box",
      "Junction box"
    ],
    [
      "capped_cable",
      "Capped cable"
    ]
  ],
  "goesBy": [
    [
      "receptacle",
      [
        [
          "timer",
          "a timer"
        ],
        [
          "two_switches",
          "two switches (three-way)"
        ],
        [
          "battery_supply",
          "a battery supply (UPS)"
        ],
        [
          "smart_lamp",
          "an app or radio switch"
        ]
      ]
    ],
    [
      "light",
      [
        [
          "motion_sensor",
          "a motion sensor"
        ],
        [
          "light_sensor",
          "a light sensor"
        ],
        [
          "timer",
          "a timer"
        ],
        [
          "smart_lamp",
          "an app or radio switch"
        ],
        [
          "two_switches",
          "two switches (three-way)"
        ],
        [
          "own_battery",
          "a battery of its own"
        ]
      ]
    ],
    [
      "switch",
      [
        [
          "motion_sensor",
          "a motion sensor"
        ],
        [
          "timer",
          "a timer"
        ]
      ]
    ],
    [
      "appliance",
      [
        [
          "thermostat",
          "a thermostat or compressor"
        ],
        [
          "timer",
          "a timer"
        ],
        [
          "own_battery",
          "a battery of its own"
        ]
      ]
    ],
    [
      "alarm",
      [
        [
          "own_battery",
          "a battery of its own"
        ]
      ]
    ],
    [
      "fan",
      [
        [
          "timer",
          "a timer"
        ],
        [
          "motion_sensor",
          "a motion sensor"
        ],
        [
          "thermostat",
          "a thermostat or compressor"
        ]
      ]
    ]
  ],
  "placeable": [
    {
      "key": "receptacle",
      "words": "Receptacle",
      "kind": "receptacle",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "light",
      "words": "Light",
      "kind": "light",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "switch",
      "words": "Switch",
      "kind": "switch",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "appliance",
      "words": "Appliance",
      "kind": "appliance",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "alarm",
      "words": "Alarm",
      "kind": "alarm",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "gfci",
      "words": "GFCI receptacle",
      "kind": "receptacle",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": true,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "quad",
      "words": "Quad receptacle",
      "kind": "receptacle",
      "volts": 120,
      "details": {
        "outlets": "quad",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "single",
      "words": "Single receptacle",
      "kind": "receptacle",
      "volts": 120,
      "details": {
        "outlets": "single",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "outdoor",
      "words": "Outdoor receptacle",
      "kind": "receptacle",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": true,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "high",
      "words": "240 V receptacle",
      "kind": "receptacle",
      "volts": 240,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "high-appliance",
      "words": "240 V appliance",
      "kind": "appliance",
      "volts": 240,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "fan",
      "words": "Fan",
      "kind": "fan",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "junction",
      "words": "Junction box",
      "kind": "junction_box",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    },
    {
      "key": "capped",
      "words": "Capped cable",
      "kind": "capped_cable",
      "volts": 120,
      "details": {
        "outlets": "duplex",
        "half_of": null,
        "gfci": false,
        "outdoor": false,
        "weather_resistant": false,
        "tamper_resistant": false,
        "dark_minutes": null,
        "goes_by": null
      }
    }
  ],
  "openings": [
    {
      "kind": "door",
      "words": "Door",
      "width": 800
    },
    {
      "kind": "passage",
      "words": "Passage",
      "width": 1000
    },
    {
      "kind": "window",
      "words": "Window",
      "width": 1000
    }
  ],
  "methods": [
    [
      "one_at_a_time",
      "One breaker at a time"
    ],
    [
      "lamp_and_helper",
      "A lamp at one point, breaker after breaker"
    ],
    [
      "tone_tracer",
      "Tone tracer first, then the breaker"
    ],
    [
      "several_off",
      "Several off at once, the shortest"
    ]
  ],
  "practiceKit": [
    [
      "plug_in_tester",
      "Plug-in tester"
    ],
    [
      "eye",
      "Look"
    ],
    [
      "lamp",
      "Lamp"
    ],
    [
      "radio",
      "Radio"
    ],
    [
      "meter",
      "Meter"
    ],
    [
      "non_contact",
      "Non-contact tester"
    ],
    [
      "tone_tracer",
      "Tone tracer"
    ]
  ],
  "unreadPanel": {
    "interior": "breakers",
    "fed_by": null,
    "tag": null,
    "main_at": "not_read",
    "bus": null,
    "service_disconnect": null,
    "bond": null,
    "three_wire_feeder": false,
    "ground_bar": null,
    "sources": null,
    "types": [],
    "interrupting_ka": null,
    "tandems": "not_read",
    "notched": null,
    "circuits": null,
    "plug_on_neutral": null,
    "neutrals_doubled": null,
    "conductors": null,
    "make": "",
    "series": "",
    "year": null
  },
  "unreadBreaker": {
    "housing": null,
    "tie": "common_trip",
    "back_fed_main": false,
    "fastened": null,
    "hooked": null,
    "type_name": "",
    "interrupting_ka": null,
    "neutral": null,
    "terminal": {
      "under": null,
      "listed": null,
      "alike": null,
      "torque_inlb": null
    },
    "feeds": "",
    "brings_in": null,
    "inverter_amps": null,
    "interlocked": null,
    "slash_rated": null
  },
  "plainPoint": {
    "outlets": "duplex",
    "half_of": null,
    "gfci": false,
    "outdoor": false,
    "weather_resistant": false,
    "tamper_resistant": false,
    "dark_minutes": null,
    "goes_by": null
  }
} as const;
