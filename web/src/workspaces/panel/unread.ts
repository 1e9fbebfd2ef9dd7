import type { BreakerDetails, PanelDetails } from "../../api/client";

/** A breaker of which nothing more was read. */
export const UNREAD_BREAKER: BreakerDetails = {
  housing: null,
  tie: "common_trip",
  back_fed_main: false,
  fastened: null,
  hooked: null,
  type_name: "",
  interrupting_ka: null,
  neutral: null,
  terminal: { under: null, listed: null, alike: null, torque_inlb: null },
  feeds: "",
};

/** A panel of which nothing more was read. */
export const UNREAD_PANEL: PanelDetails = {
  interior: "breakers",
  fed_by: null,
  tag: null,
  main_at: "not_read",
  bus: null,
  service_disconnect: null,
  bond: null,
  three_wire_feeder: false,
  ground_bar: null,
  sources: null,
  types: [],
  interrupting_ka: null,
  tandems: "not_read",
  notched: null,
  circuits: null,
  plug_on_neutral: null,
  neutrals_doubled: null,
  conductors: null,
  make: "",
  series: "",
  year: null,
};
