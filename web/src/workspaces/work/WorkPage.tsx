import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link, useSearchParams } from "react-router";
import type { JobLine, WorkView } from "../../api/client";
import { useJobs, useWork } from "../../api/queries";
import { useThisHome } from "../../app/useThisHome";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";
import { dateOf } from "../../parts/when";
import { OtherJobs } from "./OtherJobs";
import { PriceList } from "./PriceList";
import { Ways } from "./Ways";
import { WishForm } from "./WishForm";

/** What is to be done in a panel: a wish and the ways to it, and the jobs that are open. */
export function WorkPage() {
  const home = useThisHome();
  const [asked, setAsked] = useSearchParams();
  const wish = asked.get("wish") ?? "";
  const panel = asked.get("panel") ?? "";
  const not = (asked.get("not") ?? "").split(",").filter((id) => id !== "");
  const pin = asked.get("pin") ?? "";
  const work = useWork(home.id, wish, panel, not);
  const change = (changes: Record<string, string>) => {
    const next = new URLSearchParams(asked);
    for (const [name, value] of Object.entries(changes)) {
      if (value === "") next.delete(name);
      else next.set(name, value);
    }
    setAsked(next);
  };
  return (
    <>
      {wish === "" && (
        <Typography variant="h1" sx={{ mb: 1 }}>
          Work in a panel
        </Typography>
      )}
      <WishForm
        key={`${wish} ${panel}`}
        home={home}
        wish={wish}
        panel={panel}
        onWish={(said, on) => setAsked({ wish: said, ...(on !== "" && { panel: on }) })}
      />
      {wish !== "" && (
        <Loaded query={work} what="ways">
          {(view: WorkView) => (
            <Ways
              home={home.id}
              wish={wish}
              view={view}
              pinned={pin}
              onPin={(way) => change({ pin: way })}
              onRuleOut={(breakers) => change({ not: breakers.join(",") })}
              onWish={(said, on) => setAsked({ wish: said, panel: on })}
            />
          )}
        </Loaded>
      )}
      <Box
        sx={{
          mt: 3,
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)" },
        }}
      >
        <Jobs home={home.id} />
        <OtherJobs home={home} />
        <Block title="The size of a new circuit">
          <Typography variant="body2" sx={{ mb: 1.5 }}>
            Breaker, wire, ground, receptacle, box, GFCI and AFCI by what it feeds and where it runs, rule by rule.
          </Typography>
          <Button component={Link} to={`/h/${home.id}/work/size`} variant="outlined">
            Size a circuit
          </Button>
        </Block>
        <PriceList home={home.id} />
      </Box>
    </>
  );
}

function Jobs({ home }: { home: string }) {
  const jobs = useJobs(home);
  return (
    <Block title="Job sheets">
      <Loaded query={jobs} what="jobs">
        {(view: { jobs: JobLine[] }) =>
          view.jobs.length === 0 ? (
            <Typography variant="body2">
              None yet. A way above, a breaker or a point has a button that makes one.
            </Typography>
          ) : (
            <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
              {view.jobs.map((job) => (
                <Box
                  component="li"
                  key={job.job}
                  data-job={job.stands}
                  sx={{ py: 0.5, display: "flex", flexWrap: "wrap", columnGap: 1.5, alignItems: "baseline" }}
                >
                  <Link
                    to={`/h/${home}/work/job/${job.job}`}
                    style={{ display: "inline-block", minHeight: 44, lineHeight: "44px" }}
                  >
                    {job.title}
                  </Link>
                  <Typography variant="body2" color="text.secondary">
                    {job.words}, {dateOf(job.at)}
                  </Typography>
                </Box>
              ))}
            </Box>
          )
        }
      </Loaded>
    </Block>
  );
}
