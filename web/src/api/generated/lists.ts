// Generated from the core by `cargo xtask types`.
export const LISTS = {
  "factVersion": 21,
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
    "circuit_worded",
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
    "load_placed",
    "load_removed",
    "service_told",
    "service_figure_told",
    "heat_seen",
    "survey_set",
    "usage_read",
    "breaker_volts_read",
    "reading_taken",
    "points_rewired",
    "job_begun",
    "job_answered",
    "job_stopped",
    "job_ended",
    "job_left",
    "size_kept",
    "size_dropped",
    "prices_set",
    "trace_set",
    "practice_house",
    "card_hung",
    "stickers_printed",
    "device_tested",
    "tests_set",
    "address_given",
    "trouble_told",
    "trouble_looked",
    "trouble_ended",
    "trouble_mended",
    "numbers_kept",
    "point_fed",
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
  "appliances": [
    {
      "id": "fridge",
      "name": "refrigerator",
      "class": "kitchen",
      "volts": 120,
      "watts": 150.0,
      "watts_low": 100.0,
      "watts_high": 250.0,
      "start_factor": 5.0,
      "power_factor": 0.85,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 32.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "fridge_old",
      "name": "refrigerator before about 2000",
      "class": "kitchen",
      "volts": 120,
      "watts": 350.0,
      "watts_low": 200.0,
      "watts_high": 700.0,
      "start_factor": 5.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 18.0,
        "uses_per_day": 34.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "fridge_defrost",
      "name": "refrigerator defrost heater",
      "class": "kitchen",
      "volts": 120,
      "watts": 450.0,
      "watts_low": 300.0,
      "watts_high": 600.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 1.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "freezer",
      "name": "chest or upright freezer",
      "class": "appliance",
      "volts": 120,
      "watts": 150.0,
      "watts_low": 80.0,
      "watts_high": 350.0,
      "start_factor": 5.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 30.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "wine_cooler",
      "name": "wine cooler",
      "class": "kitchen",
      "volts": 120,
      "watts": 100.0,
      "watts_low": 70.0,
      "watts_high": 150.0,
      "start_factor": 4.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 30.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "ice_maker",
      "name": "stand-alone ice maker",
      "class": "kitchen",
      "volts": 120,
      "watts": 250.0,
      "watts_low": 150.0,
      "watts_high": 400.0,
      "start_factor": 4.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 30.0,
        "uses_per_day": 12.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "range_240",
      "name": "range all on",
      "class": "range",
      "volts": 240,
      "watts": 9000.0,
      "watts_low": 8000.0,
      "watts_high": 14000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 40.0,
        "uses_per_day": 0.1,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "range_typ",
      "name": "range as cooked on (one or two elements)",
      "class": "range",
      "volts": 240,
      "watts": 2500.0,
      "watts_low": 1200.0,
      "watts_high": 5000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 45.0,
        "uses_per_day": 1.3,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "estimate",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "cooktop",
      "name": "cooktop as cooked on",
      "class": "range",
      "volts": 240,
      "watts": 2200.0,
      "watts_low": 1200.0,
      "watts_high": 5100.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 40.0,
        "uses_per_day": 1.3,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "estimate",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "induction",
      "name": "induction cooktop as cooked on",
      "class": "range",
      "volts": 240,
      "watts": 2500.0,
      "watts_low": 1400.0,
      "watts_high": 7200.0,
      "start_factor": 1.0,
      "power_factor": 0.98,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 35.0,
        "uses_per_day": 1.3,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "oven",
      "name": "wall oven",
      "class": "range",
      "volts": 240,
      "watts": 3000.0,
      "watts_low": 2400.0,
      "watts_high": 5000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 60.0,
        "uses_per_day": 0.4,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "bread_oven",
      "name": "large electric baking oven",
      "class": "range",
      "volts": 240,
      "watts": 6000.0,
      "watts_low": 4000.0,
      "watts_high": 9000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 0.3,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "estimate",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "microwave",
      "name": "microwave countertop",
      "class": "kitchen",
      "volts": 120,
      "watts": 1450.0,
      "watts_low": 1000.0,
      "watts_high": 1800.0,
      "start_factor": 1.2,
      "power_factor": 0.95,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 4.0,
        "uses_per_day": 5.0,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "microwave_hood",
      "name": "microwave above a range",
      "class": "kitchen",
      "volts": 120,
      "watts": 1600.0,
      "watts_low": 1440.0,
      "watts_high": 1800.0,
      "start_factor": 1.2,
      "power_factor": 0.95,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 4.0,
        "uses_per_day": 5.0,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "hood",
      "name": "range hood with lights",
      "class": "lighting",
      "volts": 120,
      "watts": 180.0,
      "watts_low": 120.0,
      "watts_high": 300.0,
      "start_factor": 2.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 35.0,
        "uses_per_day": 1.3,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "toaster",
      "name": "toaster",
      "class": "kitchen",
      "volts": 120,
      "watts": 1000.0,
      "watts_low": 800.0,
      "watts_high": 1500.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 4.0,
        "uses_per_day": 2.0,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "toaster_oven",
      "name": "toaster oven",
      "class": "kitchen",
      "volts": 120,
      "watts": 1400.0,
      "watts_low": 1200.0,
      "watts_high": 1800.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 0.6,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "kettle",
      "name": "kettle",
      "class": "kitchen",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1000.0,
      "watts_high": 1500.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 5.0,
        "uses_per_day": 3.0,
        "when": [
          "morning",
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "coffee",
      "name": "drip coffee maker",
      "class": "kitchen",
      "volts": 120,
      "watts": 900.0,
      "watts_low": 750.0,
      "watts_high": 1200.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 10.0,
        "uses_per_day": 1.5,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "coffee_keep",
      "name": "coffee maker keeping warm",
      "class": "kitchen",
      "volts": 120,
      "watts": 70.0,
      "watts_low": 50.0,
      "watts_high": 120.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 60.0,
        "uses_per_day": 1.0,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "espresso",
      "name": "espresso machine heating",
      "class": "kitchen",
      "volts": 120,
      "watts": 1350.0,
      "watts_low": 1000.0,
      "watts_high": 1500.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 6.0,
        "uses_per_day": 2.0,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "air_fryer",
      "name": "air fryer",
      "class": "kitchen",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1200.0,
      "watts_high": 1800.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 18.0,
        "uses_per_day": 0.7,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "slow_cooker",
      "name": "slow cooker",
      "class": "kitchen",
      "volts": 120,
      "watts": 220.0,
      "watts_low": 150.0,
      "watts_high": 320.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 360.0,
        "uses_per_day": 0.15,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "rice_cooker",
      "name": "rice cooker",
      "class": "kitchen",
      "volts": 120,
      "watts": 600.0,
      "watts_low": 400.0,
      "watts_high": 900.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 25.0,
        "uses_per_day": 0.4,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "griddle",
      "name": "electric griddle",
      "class": "kitchen",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1200.0,
      "watts_high": 1500.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 25.0,
        "uses_per_day": 0.15,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "waffle",
      "name": "waffle iron",
      "class": "kitchen",
      "volts": 120,
      "watts": 1000.0,
      "watts_low": 700.0,
      "watts_high": 1200.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 0.1,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "blender",
      "name": "blender",
      "class": "kitchen",
      "volts": 120,
      "watts": 450.0,
      "watts_low": 300.0,
      "watts_high": 1200.0,
      "start_factor": 3.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 2.0,
        "uses_per_day": 0.5,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "mixer",
      "name": "stand mixer",
      "class": "kitchen",
      "volts": 120,
      "watts": 300.0,
      "watts_low": 200.0,
      "watts_high": 575.0,
      "start_factor": 3.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 8.0,
        "uses_per_day": 0.1,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "disposer",
      "name": "waste disposer",
      "class": "disposer",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 350.0,
      "watts_high": 900.0,
      "start_factor": 4.0,
      "power_factor": 0.75,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 1.0,
        "uses_per_day": 2.0,
        "when": [
          "meal"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "dishwasher_heat",
      "name": "dishwasher heating",
      "class": "dishwasher",
      "volts": 120,
      "watts": 1200.0,
      "watts_low": 1000.0,
      "watts_high": 1440.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 35.0,
        "uses_per_day": 0.7,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "dishwasher_wash",
      "name": "dishwasher washing",
      "class": "dishwasher",
      "volts": 120,
      "watts": 200.0,
      "watts_low": 150.0,
      "watts_high": 300.0,
      "start_factor": 3.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 60.0,
        "uses_per_day": 0.7,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "compactor",
      "name": "trash compactor",
      "class": "kitchen",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 400.0,
      "watts_high": 700.0,
      "start_factor": 3.0,
      "power_factor": 0.75,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 1.0,
        "uses_per_day": 1.0,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "instant_tap",
      "name": "hot water tap under the sink",
      "class": "kitchen",
      "volts": 120,
      "watts": 750.0,
      "watts_low": 500.0,
      "watts_high": 1300.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 5.0,
        "uses_per_day": 8.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "washer",
      "name": "clothes washer",
      "class": "laundry",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 350.0,
      "watts_high": 900.0,
      "start_factor": 3.0,
      "power_factor": 0.7,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 45.0,
        "uses_per_day": 0.6,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "dryer",
      "name": "electric dryer",
      "class": "dryer",
      "volts": 240,
      "watts": 5000.0,
      "watts_low": 4000.0,
      "watts_high": 5600.0,
      "start_factor": 1.1,
      "power_factor": 0.99,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 45.0,
        "uses_per_day": 0.6,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "dryer_hp",
      "name": "heat pump dryer",
      "class": "dryer",
      "volts": 240,
      "watts": 900.0,
      "watts_low": 600.0,
      "watts_high": 1200.0,
      "start_factor": 3.0,
      "power_factor": 0.9,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 90.0,
        "uses_per_day": 0.6,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "dryer_gas",
      "name": "gas dryer",
      "class": "laundry",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 350.0,
      "watts_high": 700.0,
      "start_factor": 4.0,
      "power_factor": 0.75,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 45.0,
        "uses_per_day": 0.6,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "iron",
      "name": "clothes iron",
      "class": "laundry",
      "volts": 120,
      "watts": 1400.0,
      "watts_low": 1000.0,
      "watts_high": 1800.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 0.2,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "steamer",
      "name": "garment steamer",
      "class": "general",
      "volts": 120,
      "watts": 1400.0,
      "watts_low": 1200.0,
      "watts_high": 1800.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 10.0,
        "uses_per_day": 0.1,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "tank_4500",
      "name": "storage water heater 4500 W",
      "class": "water",
      "volts": 240,
      "watts": 4500.0,
      "watts_low": 3800.0,
      "watts_high": 5500.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 30.0,
        "uses_per_day": 4.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "tank_120",
      "name": "small storage water heater",
      "class": "water",
      "volts": 120,
      "watts": 1440.0,
      "watts_low": 1200.0,
      "watts_high": 1500.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 40.0,
        "uses_per_day": 4.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "tank_hp",
      "name": "heat pump water heater compressor",
      "class": "water",
      "volts": 240,
      "watts": 500.0,
      "watts_low": 350.0,
      "watts_high": 800.0,
      "start_factor": 4.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 90.0,
        "uses_per_day": 3.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "tankless",
      "name": "tankless water heater",
      "class": "water",
      "volts": 240,
      "watts": 18000.0,
      "watts_low": 9000.0,
      "watts_high": 27000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 8.0,
        "uses_per_day": 3.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "recirc",
      "name": "hot water circulating pump",
      "class": "water",
      "volts": 120,
      "watts": 60.0,
      "watts_low": 25.0,
      "watts_high": 100.0,
      "start_factor": 2.0,
      "power_factor": 0.6,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 30.0,
        "uses_per_day": 6.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "furnace",
      "name": "gas furnace blower",
      "class": "furnace",
      "volts": 120,
      "watts": 600.0,
      "watts_low": 350.0,
      "watts_high": 900.0,
      "start_factor": 4.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 12.0,
        "uses_per_day": 36.0,
        "when": [
          "any"
        ],
        "season": "heat"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "boiler",
      "name": "boiler burner and pumps",
      "class": "furnace",
      "volts": 120,
      "watts": 250.0,
      "watts_low": 100.0,
      "watts_high": 400.0,
      "start_factor": 3.0,
      "power_factor": 0.75,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 36.0,
        "when": [
          "any"
        ],
        "season": "heat"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "furnace_el",
      "name": "electric furnace",
      "class": "heat",
      "volts": 240,
      "watts": 15000.0,
      "watts_low": 10000.0,
      "watts_high": 20000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 24.0,
        "when": [
          "any"
        ],
        "season": "heat"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "baseboard_1000",
      "name": "baseboard heater 1000 W",
      "class": "heat",
      "volts": 240,
      "watts": 1000.0,
      "watts_low": 1000.0,
      "watts_high": 1000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 32.0,
        "when": [
          "any"
        ],
        "season": "heat"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "baseboard_2000",
      "name": "baseboard heater 2000 W",
      "class": "heat",
      "volts": 240,
      "watts": 2000.0,
      "watts_low": 2000.0,
      "watts_high": 2000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 32.0,
        "when": [
          "any"
        ],
        "season": "heat"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "space_heater",
      "name": "portable heater",
      "class": "general",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 750.0,
      "watts_high": 1500.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 90.0,
        "uses_per_day": 1.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "heat"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "bath_heater",
      "name": "bath wall heater",
      "class": "bath",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1000.0,
      "watts_high": 1600.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 2.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "heat"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "floor_heat",
      "name": "heated floor of a bath",
      "class": "bath",
      "volts": 120,
      "watts": 400.0,
      "watts_low": 200.0,
      "watts_high": 700.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 60.0,
        "uses_per_day": 4.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "heat"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "towel_rail",
      "name": "towel rail",
      "class": "bath",
      "volts": 120,
      "watts": 120.0,
      "watts_low": 60.0,
      "watts_high": 200.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 120.0,
        "uses_per_day": 1.0,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "hp_3ton",
      "name": "heat pump 3 tons heating",
      "class": "cooling",
      "volts": 240,
      "watts": 3300.0,
      "watts_low": 2500.0,
      "watts_high": 4500.0,
      "start_factor": 4.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 24.0,
        "when": [
          "any"
        ],
        "season": "heat"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "hp_strip",
      "name": "heat pump supplement",
      "class": "heat",
      "volts": 240,
      "watts": 10000.0,
      "watts_low": 5000.0,
      "watts_high": 15000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 3.0,
        "when": [
          "morning"
        ],
        "season": "heat"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "ac_3ton",
      "name": "central cooling 3 tons",
      "class": "cooling",
      "volts": 240,
      "watts": 3200.0,
      "watts_low": 2500.0,
      "watts_high": 4500.0,
      "start_factor": 5.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 24.0,
        "when": [
          "day",
          "evening"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "ac_blower",
      "name": "air handler blower",
      "class": "furnace",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 300.0,
      "watts_high": 800.0,
      "start_factor": 4.0,
      "power_factor": 0.8,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 24.0,
        "when": [
          "day",
          "evening"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "minisplit",
      "name": "ductless unit",
      "class": "cooling",
      "volts": 240,
      "watts": 1000.0,
      "watts_low": 400.0,
      "watts_high": 2000.0,
      "start_factor": 1.2,
      "power_factor": 0.95,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 45.0,
        "uses_per_day": 12.0,
        "when": [
          "any"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "ac_window_s",
      "name": "window cooler small",
      "class": "general",
      "volts": 120,
      "watts": 550.0,
      "watts_low": 450.0,
      "watts_high": 700.0,
      "start_factor": 4.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 30.0,
        "uses_per_day": 10.0,
        "when": [
          "evening",
          "night"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "ac_window_l",
      "name": "window cooler large 120 V",
      "class": "general",
      "volts": 120,
      "watts": 1250.0,
      "watts_low": 1000.0,
      "watts_high": 1440.0,
      "start_factor": 4.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 30.0,
        "uses_per_day": 10.0,
        "when": [
          "day",
          "evening"
        ],
        "season": "cool"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "dehumidifier",
      "name": "dehumidifier",
      "class": "general",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 300.0,
      "watts_high": 700.0,
      "start_factor": 4.0,
      "power_factor": 0.85,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 40.0,
        "uses_per_day": 12.0,
        "when": [
          "any"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "cool"
    },
    {
      "id": "humidifier",
      "name": "humidifier",
      "class": "general",
      "volts": 120,
      "watts": 50.0,
      "watts_low": 30.0,
      "watts_high": 250.0,
      "start_factor": 1.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 120.0,
        "uses_per_day": 4.0,
        "when": [
          "any"
        ],
        "season": "heat"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "fan_ceiling",
      "name": "ceiling fan",
      "class": "lighting",
      "volts": 120,
      "watts": 50.0,
      "watts_low": 15.0,
      "watts_high": 75.0,
      "start_factor": 1.5,
      "power_factor": 0.7,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 1.0,
        "when": [
          "evening",
          "night"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "fan_portable",
      "name": "portable fan",
      "class": "general",
      "volts": 120,
      "watts": 60.0,
      "watts_low": 30.0,
      "watts_high": 100.0,
      "start_factor": 1.5,
      "power_factor": 0.7,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 1.0,
        "when": [
          "evening",
          "night"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "fan_bath",
      "name": "bath fan",
      "class": "lighting",
      "volts": 120,
      "watts": 30.0,
      "watts_low": 10.0,
      "watts_high": 60.0,
      "start_factor": 2.0,
      "power_factor": 0.6,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 3.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "fan_attic",
      "name": "attic fan",
      "class": "lighting",
      "volts": 120,
      "watts": 350.0,
      "watts_low": 250.0,
      "watts_high": 500.0,
      "start_factor": 3.0,
      "power_factor": 0.7,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 120.0,
        "uses_per_day": 2.0,
        "when": [
          "day"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "well_pump",
      "name": "well pump",
      "class": "pump",
      "volts": 240,
      "watts": 1100.0,
      "watts_low": 750.0,
      "watts_high": 2000.0,
      "start_factor": 5.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 5.0,
        "uses_per_day": 12.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "sump_pump",
      "name": "sump pump",
      "class": "pump",
      "volts": 120,
      "watts": 800.0,
      "watts_low": 400.0,
      "watts_high": 1200.0,
      "start_factor": 5.0,
      "power_factor": 0.75,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 1.0,
        "uses_per_day": 6.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "pool_pump",
      "name": "pool pump",
      "class": "pump",
      "volts": 240,
      "watts": 1300.0,
      "watts_low": 300.0,
      "watts_high": 2200.0,
      "start_factor": 4.0,
      "power_factor": 0.85,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 360.0,
        "uses_per_day": 1.0,
        "when": [
          "day"
        ],
        "season": "cool"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "hot_tub",
      "name": "hot tub heating",
      "class": "spa",
      "volts": 240,
      "watts": 5500.0,
      "watts_low": 4000.0,
      "watts_high": 7500.0,
      "start_factor": 1.5,
      "power_factor": 0.98,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 45.0,
        "uses_per_day": 3.0,
        "when": [
          "evening",
          "night"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "sauna",
      "name": "sauna heater",
      "class": "spa",
      "volts": 240,
      "watts": 6000.0,
      "watts_low": 4500.0,
      "watts_high": 9000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 60.0,
        "uses_per_day": 0.2,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "ev_12",
      "name": "vehicle charger 12 A 120 V",
      "class": "vehicle",
      "volts": 120,
      "watts": 1440.0,
      "watts_low": 960.0,
      "watts_high": 1440.0,
      "start_factor": 1.0,
      "power_factor": 0.99,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 480.0,
        "uses_per_day": 0.8,
        "when": [
          "night"
        ],
        "season": "all"
      },
      "watts_from": "arithmetic",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "ev_32",
      "name": "vehicle charger 32 A 240 V",
      "class": "vehicle",
      "volts": 240,
      "watts": 7680.0,
      "watts_low": 1440.0,
      "watts_high": 7680.0,
      "start_factor": 1.0,
      "power_factor": 0.99,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 150.0,
        "uses_per_day": 0.8,
        "when": [
          "night"
        ],
        "season": "all"
      },
      "watts_from": "arithmetic",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "ev_48",
      "name": "vehicle charger 48 A 240 V",
      "class": "vehicle",
      "volts": 240,
      "watts": 11520.0,
      "watts_low": 1440.0,
      "watts_high": 11520.0,
      "start_factor": 1.0,
      "power_factor": 0.99,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 100.0,
        "uses_per_day": 0.8,
        "when": [
          "night"
        ],
        "season": "all"
      },
      "watts_from": "arithmetic",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "hair_dryer",
      "name": "hair dryer",
      "class": "bath",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1000.0,
      "watts_high": 1875.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 8.0,
        "uses_per_day": 1.0,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "curler",
      "name": "curling iron or straightener",
      "class": "bath",
      "volts": 120,
      "watts": 150.0,
      "watts_low": 50.0,
      "watts_high": 250.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 0.7,
        "when": [
          "morning"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "vacuum",
      "name": "vacuum cleaner",
      "class": "general",
      "volts": 120,
      "watts": 1200.0,
      "watts_low": 700.0,
      "watts_high": 1440.0,
      "start_factor": 3.0,
      "power_factor": 0.95,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 0.3,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "central_vac",
      "name": "central vacuum",
      "class": "appliance",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1200.0,
      "watts_high": 1800.0,
      "start_factor": 3.0,
      "power_factor": 0.95,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 25.0,
        "uses_per_day": 0.2,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "tv",
      "name": "television",
      "class": "general",
      "volts": 120,
      "watts": 120.0,
      "watts_low": 50.0,
      "watts_high": 250.0,
      "start_factor": 1.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 1.0,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "audio",
      "name": "receiver and speakers",
      "class": "general",
      "volts": 120,
      "watts": 80.0,
      "watts_low": 30.0,
      "watts_high": 300.0,
      "start_factor": 1.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 120.0,
        "uses_per_day": 1.0,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "computer",
      "name": "desktop computer and screen",
      "class": "general",
      "volts": 120,
      "watts": 200.0,
      "watts_low": 100.0,
      "watts_high": 500.0,
      "start_factor": 1.0,
      "power_factor": 0.95,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 1.0,
        "when": [
          "day",
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "gaming_pc",
      "name": "gaming computer",
      "class": "general",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 300.0,
      "watts_high": 850.0,
      "start_factor": 1.0,
      "power_factor": 0.98,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 150.0,
        "uses_per_day": 0.7,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "laptop",
      "name": "laptop charger",
      "class": "general",
      "volts": 120,
      "watts": 60.0,
      "watts_low": 30.0,
      "watts_high": 100.0,
      "start_factor": 1.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 180.0,
        "uses_per_day": 1.0,
        "when": [
          "day",
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "laser_printer",
      "name": "laser printer heating",
      "class": "general",
      "volts": 120,
      "watts": 900.0,
      "watts_low": 600.0,
      "watts_high": 1300.0,
      "start_factor": 1.2,
      "power_factor": 1.0,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 2.0,
        "uses_per_day": 2.0,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "router",
      "name": "router and modem",
      "class": "general",
      "volts": 120,
      "watts": 18.0,
      "watts_low": 8.0,
      "watts_high": 30.0,
      "start_factor": 1.0,
      "power_factor": 0.6,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 1440.0,
        "uses_per_day": 1.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "server",
      "name": "small server or recorder",
      "class": "general",
      "volts": 120,
      "watts": 90.0,
      "watts_low": 40.0,
      "watts_high": 200.0,
      "start_factor": 1.0,
      "power_factor": 0.95,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 1440.0,
        "uses_per_day": 1.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "aquarium",
      "name": "aquarium heater and pump",
      "class": "general",
      "volts": 120,
      "watts": 150.0,
      "watts_low": 50.0,
      "watts_high": 300.0,
      "start_factor": 1.0,
      "power_factor": 0.95,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 30.0,
        "when": [
          "any"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "medical",
      "name": "oxygen concentrator",
      "class": "general",
      "volts": 120,
      "watts": 350.0,
      "watts_low": 150.0,
      "watts_high": 600.0,
      "start_factor": 3.0,
      "power_factor": 0.9,
      "continuous": true,
      "motor": true,
      "usage": {
        "minutes": 600.0,
        "uses_per_day": 1.0,
        "when": [
          "night"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "electric_blanket",
      "name": "electric blanket",
      "class": "general",
      "volts": 120,
      "watts": 120.0,
      "watts_low": 60.0,
      "watts_high": 200.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 120.0,
        "uses_per_day": 1.0,
        "when": [
          "night"
        ],
        "season": "heat"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "led_60",
      "name": "LED lamp in place of 60 W",
      "class": "lighting",
      "volts": 120,
      "watts": 9.0,
      "watts_low": 8.0,
      "watts_high": 10.0,
      "start_factor": 1.0,
      "power_factor": 0.7,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 1.0,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "light"
    },
    {
      "id": "led_100",
      "name": "LED lamp in place of 100 W",
      "class": "lighting",
      "volts": 120,
      "watts": 15.0,
      "watts_low": 13.0,
      "watts_high": 17.0,
      "start_factor": 1.0,
      "power_factor": 0.7,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 1.0,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "light"
    },
    {
      "id": "incandescent_60",
      "name": "incandescent lamp 60 W",
      "class": "lighting",
      "volts": 120,
      "watts": 60.0,
      "watts_low": 60.0,
      "watts_high": 60.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 1.0,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "practice",
      "usage_from": "estimate",
      "does": "light"
    },
    {
      "id": "room_lights",
      "name": "LED lights of one room",
      "class": "lighting",
      "volts": 120,
      "watts": 40.0,
      "watts_low": 15.0,
      "watts_high": 90.0,
      "start_factor": 1.0,
      "power_factor": 0.8,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 210.0,
        "uses_per_day": 1.0,
        "when": [
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "estimate",
      "usage_from": "estimate",
      "does": "light"
    },
    {
      "id": "tube_light",
      "name": "fluorescent pair in a workroom",
      "class": "lighting",
      "volts": 120,
      "watts": 64.0,
      "watts_low": 50.0,
      "watts_high": 80.0,
      "start_factor": 1.2,
      "power_factor": 0.9,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 120.0,
        "uses_per_day": 0.5,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "light"
    },
    {
      "id": "door_opener",
      "name": "garage door opener",
      "class": "garage",
      "volts": 120,
      "watts": 500.0,
      "watts_low": 350.0,
      "watts_high": 800.0,
      "start_factor": 3.0,
      "power_factor": 0.7,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 1.0,
        "uses_per_day": 6.0,
        "when": [
          "morning",
          "evening"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "compressor_air",
      "name": "air compressor portable",
      "class": "garage",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1200.0,
      "watts_high": 1800.0,
      "start_factor": 5.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 15.0,
        "uses_per_day": 0.1,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "table_saw",
      "name": "table saw",
      "class": "garage",
      "volts": 120,
      "watts": 1500.0,
      "watts_low": 1300.0,
      "watts_high": 1800.0,
      "start_factor": 5.0,
      "power_factor": 0.8,
      "continuous": false,
      "motor": true,
      "usage": {
        "minutes": 10.0,
        "uses_per_day": 0.1,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "motor"
    },
    {
      "id": "welder",
      "name": "small arc welder 240 V",
      "class": "garage",
      "volts": 240,
      "watts": 6000.0,
      "watts_low": 4000.0,
      "watts_high": 9500.0,
      "start_factor": 1.5,
      "power_factor": 0.8,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 20.0,
        "uses_per_day": 0.05,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "mower_charger",
      "name": "battery charger for tools",
      "class": "garage",
      "volts": 120,
      "watts": 300.0,
      "watts_low": 50.0,
      "watts_high": 600.0,
      "start_factor": 1.0,
      "power_factor": 0.9,
      "continuous": false,
      "motor": false,
      "usage": {
        "minutes": 90.0,
        "uses_per_day": 0.3,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "other"
    },
    {
      "id": "block_heater",
      "name": "engine block heater",
      "class": "garage",
      "volts": 120,
      "watts": 600.0,
      "watts_low": 400.0,
      "watts_high": 1000.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 180.0,
        "uses_per_day": 0.5,
        "when": [
          "night"
        ],
        "season": "heat"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "kiln",
      "name": "small kiln",
      "class": "shop",
      "volts": 240,
      "watts": 5500.0,
      "watts_low": 3500.0,
      "watts_high": 7200.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 480.0,
        "uses_per_day": 0.05,
        "when": [
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    },
    {
      "id": "grow_light",
      "name": "greenhouse lamp",
      "class": "garden",
      "volts": 120,
      "watts": 400.0,
      "watts_low": 100.0,
      "watts_high": 1000.0,
      "start_factor": 1.1,
      "power_factor": 0.95,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 720.0,
        "uses_per_day": 1.0,
        "when": [
          "morning",
          "day"
        ],
        "season": "all"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "light"
    },
    {
      "id": "heat_tape",
      "name": "pipe heat cable",
      "class": "garden",
      "volts": 120,
      "watts": 120.0,
      "watts_low": 50.0,
      "watts_high": 300.0,
      "start_factor": 1.0,
      "power_factor": 1.0,
      "continuous": true,
      "motor": false,
      "usage": {
        "minutes": 240.0,
        "uses_per_day": 2.0,
        "when": [
          "night"
        ],
        "season": "heat"
      },
      "watts_from": "tables",
      "usage_from": "estimate",
      "does": "heat"
    }
  ],
  "dayParts": [
    [
      "morning",
      "morning, 6 to 9"
    ],
    [
      "day",
      "day, 9 to 17"
    ],
    [
      "meal",
      "meal times"
    ],
    [
      "evening",
      "evening, 17 to 23"
    ],
    [
      "night",
      "night, 23 to 6"
    ],
    [
      "any",
      "any time"
    ]
  ],
  "topics": [
    [
      "trace",
      "looks and switching"
    ],
    [
      "panel",
      "panels and breakers"
    ],
    [
      "house",
      "rooms, points, the plan"
    ],
    [
      "loads",
      "loads and readings"
    ],
    [
      "work",
      "jobs and sizes"
    ],
    [
      "trouble",
      "what was wrong"
    ],
    [
      "cards",
      "cards and tests"
    ],
    [
      "home",
      "the home, its rules, photos, prices"
    ],
    [
      "struck",
      "lines struck out"
    ]
  ],
  "dangerSigns": [
    [
      "smell",
      "It smells of burning, or there is smoke"
    ],
    [
      "heat",
      "A plate, a plug or the panel is hot"
    ],
    [
      "buzz",
      "It buzzes or crackles"
    ],
    [
      "water",
      "Water is at it"
    ],
    [
      "shock",
      "Somebody felt a shock"
    ]
  ],
  "jobFinds": [
    [
      "burnt",
      "heat, burn marks or a smell"
    ],
    [
      "water",
      "water or rust"
    ],
    [
      "aluminum",
      "aluminum branch wire"
    ],
    [
      "old_wire",
      "cloth, knob-and-tube or brittle wire"
    ],
    [
      "second_feed",
      "something that stays live, or a second feed"
    ],
    [
      "main_stuck",
      "a main that does not move or stay off"
    ],
    [
      "shock",
      "a shock was felt"
    ],
    [
      "trips_again",
      "it tripped again at once"
    ],
    [
      "wanders",
      "readings that wander, or are neither live nor dead"
    ],
    [
      "not_as_said",
      "the panel is not as the sheet says"
    ],
    [
      "label",
      "the label does not name the part, or cannot be read"
    ]
  ],
  "bookParts": [
    {
      "name": "safety",
      "title": "Before you touch anything"
    },
    {
      "name": "cards",
      "title": "Cards of the panels"
    },
    {
      "name": "plans",
      "title": "Plans"
    },
    {
      "name": "circuits",
      "title": "By circuit"
    },
    {
      "name": "rooms",
      "title": "By room"
    },
    {
      "name": "equipment",
      "title": "Equipment"
    },
    {
      "name": "tests",
      "title": "Tests that come round"
    },
    {
      "name": "findings",
      "title": "What was found"
    },
    {
      "name": "open",
      "title": "What is open, and what to do about it"
    },
    {
      "name": "legend",
      "title": "What the marks mean"
    }
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
    "splice_room": null,
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
    "slash_rated": null,
    "slack": null
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
