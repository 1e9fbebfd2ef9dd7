import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";
import type { BreakerView, HomeOverview, PanelView } from "../../api/client";
import { useMoves } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { breakerOf } from "../../drawing/place";

interface Props {
  home: HomeOverview;
  view: PanelView;
  breaker: BreakerView;
  onMove: () => void;
}

/** What can be done with a breaker in the drawing: each act is one line of the logbook. */
export function BreakerChanges({ home, view, breaker, onMove }: Props) {
  const act = useAct(home.id);
  const moves = useMoves(home.id, breaker.breaker);
  const [join, setJoin] = useState<HTMLElement | null>(null);
  const [share, setShare] = useState<HTMLElement | null>(null);
  const single = breaker.poles.length === 1;
  const whole = single && breaker.poles[0]?.height === 2;
  const joins = (moves.data?.joins ?? []).flatMap((id) => breakerOf(home, id) ?? []);
  const others = view.breakers.filter((b) => b.breaker !== breaker.breaker && b.poles.length === 1);
  const shared = breaker.shares_neutral_with;
  const numbers = shared.map((id) => breakerOf(home, id)?.tag ?? "?").join(" and ");
  return (
    <Box sx={{ display: "contents" }} data-testid="breaker-changes">
      <Button variant="outlined" onClick={onMove}>
        Move
      </Button>
      {whole && (
        <Button
          variant="outlined"
          onClick={() =>
            void act(
              [{ kind: "breaker_moved", breaker: breaker.breaker, at: [`${breaker.number}a`] }],
              `Space ${breaker.number} is split: ${breaker.number}a holds this breaker, ${breaker.number}b is open.`,
            )
          }
        >
          Split into a tandem
        </Button>
      )}
      {joins.length > 0 && (
        <>
          <Button variant="outlined" aria-haspopup="menu" onClick={(e) => setJoin(e.currentTarget)}>
            Join with
          </Button>
          <Menu anchorEl={join} open={join !== null} onClose={() => setJoin(null)}>
            {joins.flatMap((other) =>
              (["handle", "common_trip"] as const).map((tie) => (
                <MenuItem
                  key={`${other.breaker} ${tie}`}
                  onClick={() => {
                    setJoin(null);
                    void act(
                      [{ kind: "breakers_joined", breaker: breaker.breaker, with: other.breaker, tie }],
                      `${breaker.number} and ${other.number} are one breaker now. What was proven on ${other.number} is to be traced again.`,
                    );
                  }}
                >
                  {other.number}, {tie === "handle" ? "by a handle tie" : "as one two-pole breaker"}
                </MenuItem>
              )),
            )}
          </Menu>
        </>
      )}
      {shared.length > 0 ? (
        <Button
          variant="outlined"
          onClick={() =>
            void act(
              [{ kind: "neutral_shared", breakers: shared, shared: false }],
              `${numbers}: recorded as not sharing a neutral.`,
            )
          }
        >
          {single ? `${numbers} do not share a neutral` : "Its poles do not share a neutral"}
        </Button>
      ) : single ? (
        <>
          <Button variant="outlined" aria-haspopup="menu" onClick={(e) => setShare(e.currentTarget)}>
            Shares a neutral with
          </Button>
          <Menu
            anchorEl={share}
            open={share !== null}
            onClose={() => setShare(null)}
            slotProps={{ paper: { sx: { maxHeight: 420 } } }}
          >
            {others.map((other) => (
              <MenuItem
                key={other.breaker}
                onClick={() => {
                  setShare(null);
                  void act(
                    [{ kind: "neutral_shared", breakers: [breaker.breaker, other.breaker], shared: true }],
                    `${breaker.number} and ${other.number} share a neutral.`,
                  );
                }}
              >
                {other.number} {other.wording || other.claim}
              </MenuItem>
            ))}
          </Menu>
        </>
      ) : (
        breaker.feeds.length === 0 && (
          <Button
            variant="outlined"
            onClick={() =>
              void act(
                [{ kind: "neutral_shared", breakers: [breaker.breaker], shared: true }],
                `The poles of ${breaker.number} share a neutral.`,
              )
            }
          >
            Its poles share a neutral
          </Button>
        )
      )}
    </Box>
  );
}
