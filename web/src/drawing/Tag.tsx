import Box from "@mui/material/Box";
import type { HomeOverview, Known } from "../api/client";
import { tone, type Tones } from "../app/theme";
import { breakerOf } from "./place";

type Kind = "proven" | "likely" | "contradictory" | "out" | "open" | "plain";

const COLORS: Record<Kind, [keyof Tones, keyof Tones]> = {
  proven: ["moss", "onMoss"],
  likely: ["ochre", "onOchre"],
  contradictory: ["danger", "paper"],
  out: ["dark", "onDark"],
  open: ["slate", "onSlate"],
  plain: ["dark", "onDark"],
};

interface Props {
  text: string;
  kind?: Kind;
  title?: string;
  size?: "small" | "large";
}

/** A circuit's number as a small blade of the fingerpost. */
export function Tag({ text, kind = "plain", title, size = "small" }: Props) {
  const [fill, ink] = COLORS[kind];
  return (
    <Box
      component="span"
      title={title}
      data-kind={kind}
      sx={{
        display: "inline-block",
        fontFamily: "Overpass Variable",
        fontWeight: 700,
        fontSize: size === "large" ? "1.6rem" : "0.85rem",
        lineHeight: 1,
        whiteSpace: "nowrap",
        color: tone(ink),
        bgcolor: tone(fill),
        pl: 1,
        pr: 2,
        py: 0.7,
        clipPath: "polygon(0 0, calc(100% - 9px) 0, 100% 50%, calc(100% - 9px) 100%, 0 100%)",
        ...(kind === "open" && {
          backgroundImage: "repeating-linear-gradient(135deg, transparent 0 6px, #0000001f 6px 8px)",
        }),
      }}
    >
      {text}
    </Box>
  );
}

/** What is known of a point, as a tag with a spoken name. */
export function VerdictTag({ verdict, home }: { verdict: Known; home: HomeOverview }) {
  const number = (id: string) => breakerOf(home, id)?.tag ?? "?";
  switch (verdict.verdict) {
    case "proven":
      return <Tag kind="proven" text={number(verdict.breaker)} title="Proven" />;
    case "contradictory":
      return <Tag kind="contradictory" text="looks disagree" title={verdict.because} />;
    case "out":
      return <Tag kind="out" text="dark, all on" title="Dark with everything on" />;
    case "by_exclusion":
      return (
        <Tag
          kind="likely"
          text={`${verdict.breakers.map(number).join(" or ")} excl.`}
          title="By exclusion, not proven"
        />
      );
    case "open": {
      const possible = verdict.possible.map(number);
      const few = possible.length > 0 && possible.length <= 2;
      const text = verdict.candidates === 0 ? "none found" : few ? `${possible.join(" or ")}?` : "?";
      return <Tag kind="open" text={text} title="Not proven" />;
    }
  }
}
