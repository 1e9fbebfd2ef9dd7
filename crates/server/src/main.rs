//! `wayfinder`: the program.

mod faults;
mod home_files;
mod in_words;
mod kept;
mod moving;
mod trips;
mod worked;

use std::io::{Read, Write};
use std::net::SocketAddr;
use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::{Context, Result, bail};
use clap::{Parser, Subcommand};
use tokio::net::TcpListener;
use wayfinder_core::SurveyWish;
use wayfinder_core::loads::{NewLoad, NewLoadKind, ServiceMethod, SurveyAsked, loads_view, service_view, usual_method};
use wayfinder_core::search::{Costs, Crew, Game, House, Strategy, World};
use wayfinder_core::sim::{SurveyPlayed, game, marks, score, survey_of_unknown, survey_through, trace_through};
use wayfinder_core::work::{USUAL_STEPS, read_wish, work_view};
use wayfinder_core::{BookPart, Fact, HomeId, Level, Method, Printed, RULES, Recipe, Study, TraceSetup, lists};
use wayfinder_formats::{CardColors, read_home_file, service_pdf};
use wayfinder_server::{COMMIT, Capacity, Desk, SHARE_AT, Setup, Tls, openapi_json, serve};

use crate::home_files::{book, book_part, card_colors, directory, home_named, homes};
use crate::in_words::{loads_in_words, sheet_in_words, ways_in_words};
use crate::worked::{Engine, answer_file};

/// Trace which breaker feeds what, and keep the panel's card right.
#[derive(Parser)]
#[command(name = "wayfinder", version = version())]
struct Args {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Start with the demo home, in a data folder of its own.
    Demo {
        /// The data folder; by default `wayfinder-demo` among this user's data.
        #[arg(long)]
        data: Option<PathBuf>,
        /// The address to listen on; loopback only.
        #[arg(long, default_value = "127.0.0.1:4750")]
        bind: SocketAddr,
        #[command(flatten)]
        network: Network,
        /// Put the demo home back as shipped.
        #[arg(long)]
        reset: bool,
    },
    /// Start with your own homes.
    Serve {
        /// The data folder; it is made if it is not there.
        #[arg(long)]
        data: PathBuf,
        /// The address to listen on; loopback only.
        #[arg(long, default_value = "127.0.0.1:4751")]
        bind: SocketAddr,
        #[command(flatten)]
        network: Network,
    },
    /// Write a whole home as one JSON file.
    Export {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id.
        home: HomeId,
        /// The file; standard output if left out.
        #[arg(long)]
        out: Option<PathBuf>,
        /// For whoever gets the home: without the names of those who helped. Whoever began the logbook keeps theirs.
        #[arg(long)]
        without_names: bool,
    },
    /// Take in a whole home from its JSON file.
    Import {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The file, or - for standard input.
        file: PathBuf,
    },
    /// Check a data folder or a copy: whether it is as it was written, and of each home what is worth a look. Nothing is written, and it
    /// can be done while Wayfinder runs.
    Check {
        /// The data folder, or the file of a copy.
        #[arg(long)]
        data: PathBuf,
        /// As JSON.
        #[arg(long)]
        json: bool,
    },
    /// Write a copy of a data folder, as it is at one moment; also while Wayfinder runs.
    Backup {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The file to write. What is there is never written over.
        #[arg(long)]
        out: PathBuf,
    },
    /// Put a copy back, into a folder that is empty or not there yet.
    Restore {
        /// The copy.
        file: PathBuf,
        /// The data folder to make.
        #[arg(long)]
        data: PathBuf,
    },
    /// Save what can be read of a damaged data folder or copy: every home that reads, and of the others every line up to the damage.
    Salvage {
        /// The damaged data folder, or the file of a damaged copy. It is left as it is.
        #[arg(long)]
        data: PathBuf,
        /// The new data folder; empty, or not there yet.
        #[arg(long)]
        to: PathBuf,
    },
    /// Take a home from one running server to another, while people write to it; nothing that was acknowledged is lost, and whoever is in
    /// is sent on.
    Move {
        /// The home's id.
        home: HomeId,
        /// The server it goes to. Away from this machine that is its shared address, and the owner's passphrase is asked for
        /// (or read from WAYFINDER_PASSPHRASE).
        #[arg(long, value_name = "ADDRESS")]
        to: String,
        /// The server it leaves.
        #[arg(long, value_name = "ADDRESS", default_value = "http://127.0.0.1:4751")]
        from: String,
        /// Where people are sent on to, where that is another address than this machine has for it, as through a tunnel.
        #[arg(long, value_name = "ADDRESS")]
        tell: Option<String>,
    },
    /// Say what each circuit of a home carries, nearest its limit first.
    Loads {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id.
        home: HomeId,
        /// As one JSON object.
        #[arg(long)]
        json: bool,
    },
    /// Find the ways to a wish on a panel of a home: “40 A two-pole for the kiln”, “two free spaces side by side”, “replace 17 with 20 A”.
    Work {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id.
        home: HomeId,
        /// The wish, as it is said.
        #[arg(long)]
        wish: String,
        /// The panel's name; left out, the first one.
        #[arg(long)]
        panel: Option<String>,
        /// As one JSON object.
        #[arg(long)]
        json: bool,
    },
    /// Say where the power of a dark point may stop, and where to look first. Nothing is written.
    Trips {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id or name.
        home: String,
        /// A point that is dark, by its place or id: `Porch, door`. Several: name the option again.
        #[arg(long, required = true, num_args = 1..)]
        dark: Vec<String>,
        /// As one JSON object.
        #[arg(long)]
        json: bool,
    },
    /// Say what was written in a home's logbook since a day.
    Changes {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id or name.
        home: String,
        /// The day, as 2026-11-24 (UTC).
        #[arg(long)]
        since: String,
        /// As one JSON list.
        #[arg(long)]
        json: bool,
    },
    /// Work out the service calculation of a home, line by line.
    Service {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id.
        home: HomeId,
        /// standard, optional, existing, measured or canada; left out, the usual one.
        #[arg(long, value_parser = service_method)]
        method: Option<ServiceMethod>,
        /// A load to be added, in volt-amperes at 240 V.
        #[arg(long)]
        new_va: Option<u32>,
        /// As one JSON object.
        #[arg(long)]
        json: bool,
        /// As a sheet to print, on letter paper: the file to write.
        #[arg(long, conflicts_with = "json")]
        pdf: Option<PathBuf>,
    },
    /// List the homes of a data folder.
    Homes {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// As JSON.
        #[arg(long)]
        json: bool,
    },
    /// Write the directory of a home: the card of a panel (pdf, svg, json), every line of every card as a sheet (csv, xlsx, ods), or the
    /// house plan with its circuit numbers (dxf).
    Directory {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id or its name.
        home: String,
        /// pdf, svg, csv, xlsx, ods, json or dxf; left out, the card is printed as text.
        #[arg(long = "as", value_parser = clap::builder::PossibleValuesParser::new(["pdf", "svg", "csv", "xlsx", "ods", "json", "dxf"]))]
        format: Option<String>,
        /// The same as `--as json`.
        #[arg(long, conflicts_with = "format")]
        json: bool,
        /// The file; left out, standard output.
        #[arg(long)]
        out: Option<PathBuf>,
        /// The panel's name; left out, the first one.
        #[arg(long)]
        panel: Option<String>,
        /// The floor of the plan by its name, for dxf; left out, the first one.
        #[arg(long)]
        floor: Option<String>,
        /// The date that stands on the card, as 2026-11-24; left out, today's (UTC).
        #[arg(long)]
        date: Option<String>,
        /// Who prints it.
        #[arg(long, default_value = "")]
        by: String,
        /// load, amps or none.
        #[arg(long, value_parser = card_colors, default_value = "load")]
        colors: CardColors,
    },
    /// Write the home book of a home as a PDF: cover, safety words, cards, plans, lists, findings, what is open.
    Book {
        /// The data folder.
        #[arg(long)]
        data: PathBuf,
        /// The home's id or its name.
        home: String,
        /// The file.
        #[arg(long)]
        out: PathBuf,
        /// The parts, with commas between; left out, all of them.
        #[arg(long, value_delimiter = ',', value_parser = book_part)]
        parts: Vec<BookPart>,
        /// letter or a4.
        #[arg(long, value_parser = clap::builder::PossibleValuesParser::new(["letter", "a4"]), default_value = "letter")]
        paper: String,
        /// The date that stands in it, as 2026-11-24; left out, today's (UTC).
        #[arg(long)]
        date: Option<String>,
        /// Who prints it.
        #[arg(long, default_value = "")]
        by: String,
        /// load, amps or none.
        #[arg(long, value_parser = card_colors, default_value = "load")]
        colors: CardColors,
    },
    /// Made-up houses.
    Practice {
        #[command(subcommand)]
        command: Practice,
    },
    /// Print the OpenAPI description.
    Openapi,
    /// Print what the web files have to know of the core, as TypeScript.
    #[command(hide = true)]
    Lists,
    /// Print how each rule is cited by each edition, one a line with tabs between.
    #[command(hide = true)]
    Rules,
}

#[derive(Subcommand)]
enum Practice {
    /// Draw a made-up house and trace it to its end, in the real logbook, with a crew that does just what it is asked.
    Trace {
        /// What the house is drawn from.
        #[arg(long, default_value_t = 1)]
        seed: u32,
        /// How many points are listed, 8 to 150.
        #[arg(long, default_value_t = 60)]
        points: u16,
        /// plain, usual or tricky.
        #[arg(long, value_parser = level, default_value = "usual")]
        level: Level,
        /// one_at_a_time, lamp_and_helper, tone_tracer or several_off.
        #[arg(long, value_parser = method, alias = "school", default_value = "several_off")]
        method: Method,
        /// One person does it all.
        #[arg(long)]
        alone: bool,
        /// What they have: `tester=1,lamps=7,tone`.
        #[arg(long, default_value = "tester=1")]
        instruments: Instruments,
        /// As one JSON object: the acts in words, and the marks.
        #[arg(long)]
        json: bool,
    },
    /// Play a way of tracing on made-up houses and say what it took.
    Score {
        /// The houses, one JSON object a line.
        #[arg(long, required_unless_present = "drawn")]
        houses: Option<PathBuf>,
        /// Houses drawn by the program instead: so many points, so many houses, as `50x20`.
        #[arg(long, value_parser = drawn_houses)]
        drawn: Option<(u16, u32)>,
        /// What goes wrong: calm, harsh, outage (in every trace), latching (fails three times as often).
        #[arg(long, value_parser = world, default_value = "calm")]
        world: World,
        /// Who traces.
        #[arg(long, value_enum, default_value = "pair")]
        crew: Who,
        /// What they have: `tester=1,lamps=7,tone`.
        #[arg(long, default_value = "tester=1")]
        instruments: Instruments,
        /// Seconds for a word between the two.
        #[arg(long, default_value_t = 4.0)]
        exchange: f64,
        /// The way of tracing: one-at-a-time, binary, adaptive or oracle.
        #[arg(long, value_parser = strategy, default_value = "adaptive")]
        strategy: Strategy,
        /// How often each house is played.
        #[arg(long, default_value_t = 1)]
        runs: u64,
        /// As one JSON object.
        #[arg(long)]
        json: bool,
    },
    /// Draw made-up homes whose loads are hidden, and survey each to its end as the program asks.
    Survey {
        /// How many homes.
        #[arg(long, default_value_t = 50)]
        homes: u32,
        /// How many points each has, 8 to 150.
        #[arg(long, default_value_t = 50)]
        points: u16,
        /// Only find two circuits that may be joined.
        #[arg(long)]
        combine: bool,
        /// In homes of which nobody knows half of the appliances.
        #[arg(long)]
        unknown: bool,
        /// With a clamp, the cover off.
        #[arg(long)]
        clamp: bool,
        /// One JSON object a home.
        #[arg(long)]
        json: bool,
    },
    /// Work out the service calculations of a file of dwellings, one JSON object a line.
    Service(Cases),
    /// Level the legs of a file of panels, one JSON object a line.
    Legs(Cases),
    /// Solve a file of circuits, one JSON object a line.
    Network(Cases),
    /// Find the ways to make room in a file of panels, one JSON object a line.
    MakeRoom(Cases),
    /// Find why something is dark, in made-up houses with a fault.
    Faults(faults::Faults),
}

/// Which program this is, of which commit, and which logbook it writes.
fn version() -> &'static str {
    format!("{} ({COMMIT}), logbook {}", env!("CARGO_PKG_VERSION"), Fact::VERSION).leak()
}

/// The door for the home network.
#[derive(clap::Args)]
struct Network {
    /// Where to listen for the home network, once it is shared on the screen.
    #[arg(long, default_value_t = SHARE_AT)]
    share_at: SocketAddr,
    /// Encrypt what goes through that door, with this certificate (PEM). Without one nothing is encrypted.
    #[arg(long, requires = "tls_key", value_name = "FILE")]
    tls_cert: Option<PathBuf>,
    /// The private key of the certificate (PEM).
    #[arg(long, requires = "tls_cert", value_name = "FILE")]
    tls_key: Option<PathBuf>,
}

impl Network {
    fn setup(self, demo: bool) -> Result<Setup> {
        let tls = self.tls_cert.zip(self.tls_key).map(|(certificate, key)| Tls { certificate, key });
        tls.as_ref().map(Tls::check).transpose()?;
        Ok(Setup { demo, share_at: self.share_at, capacity: capacity(), tls, ..Setup::default() })
    }
}

#[derive(clap::Args)]
struct Cases {
    /// The file: lines with an `input`, or with a `problem` to make room; what else stands in a line is passed over.
    #[arg(long)]
    file: PathBuf,
    /// A JSON object a line.
    #[arg(long)]
    json: bool,
}

/// `50x20`: fifty points, twenty houses.
fn drawn_houses(text: &str) -> Result<(u16, u32), String> {
    let parts = text.split_once('x').and_then(|(points, count)| Some((points.parse().ok()?, count.parse().ok()?)));
    parts
        .filter(|(points, count)| (4..=300).contains(points) && *count > 0)
        .ok_or_else(|| "give points and houses, as 50x20".into())
}

fn world(text: &str) -> Result<World, String> {
    let found = World::NAMED.into_iter().find(|(name, _)| *name == text);
    found.map(|(_, world)| world).ok_or_else(|| "give calm, harsh, outage or latching".into())
}

#[derive(Clone, Copy, clap::ValueEnum)]
enum Who {
    /// One person.
    Alone,
    /// One at the panel, one who walks.
    Pair,
}

/// `tester=1,lamps=7,tone`.
#[derive(Clone, Copy)]
struct Instruments {
    plugs: usize,
    tone: bool,
    radio: bool,
}

impl std::str::FromStr for Instruments {
    type Err = String;
    fn from_str(text: &str) -> Result<Self, String> {
        let mut instruments = Self { plugs: 0, tone: false, radio: false };
        for part in text.split(',').map(str::trim).filter(|part| !part.is_empty()) {
            match part.split_once('=') {
                None if part == "tone" => instruments.tone = true,
                None if part == "radio" => instruments.radio = true,
                Some(("tester" | "testers" | "lamps", count)) => {
                    instruments.plugs += count.parse::<usize>().map_err(|_| format!("{count} is no count"))?;
                }
                _ => return Err(format!("{part} is none of tester=N, lamps=N, tone, radio")),
            }
        }
        if (1..=99).contains(&instruments.plugs) { Ok(instruments) } else { Err("name 1 to 99 testers and lamps".into()) }
    }
}

fn strategy(text: &str) -> Result<Strategy, String> {
    serde_json::from_value(text.into()).map_err(|_| "use one-at-a-time, binary, adaptive or oracle".into())
}

fn level(text: &str) -> Result<Level, String> {
    serde_json::from_value(text.into()).map_err(|_| "use plain, usual or tricky".into())
}

fn method(text: &str) -> Result<Method, String> {
    serde_json::from_value(text.into()).map_err(|_| "use one_at_a_time, lamp_and_helper, tone_tracer or several_off".into())
}

fn trace_made_up(recipe: Recipe, setup: TraceSetup, json: bool) -> Result<()> {
    let traced = trace_through(recipe, setup)?;
    let marks = marks(&traced.book, &Study::from(&traced.book), true).context("a made-up house has marks; this is a bug")?;
    if json {
        println!("{}", serde_json::json!({ "acts": traced.acts, "marks": marks }));
        return Ok(());
    }
    for act in &traced.acts {
        println!("{act}");
    }
    println!(
        "{:.1} min after the first look round ({:.1} min), {:.1} by somebody who knows; {} of {} right, {} wrong, {} open",
        marks.minutes, marks.first_minutes, marks.oracle_minutes, marks.right, marks.points, marks.wrong, marks.open
    );
    for unsafe_act in &marks.safety {
        println!("{unsafe_act}");
    }
    Ok(())
}

/// Surveys made-up homes to the end and says what that took and what was wrong.
fn survey_made_up(homes: u32, points: u16, combine: bool, clamp: bool, unknown: bool, json: bool) -> Result<ExitCode> {
    let wish = if combine { SurveyWish::CombineTwo } else { SurveyWish::Every };
    let asked = SurveyAsked { clamp, ..SurveyAsked::plain(wish) };
    let mut all = Vec::new();
    for seed in 0..homes {
        let play = if unknown { survey_of_unknown } else { survey_through };
        let played = play(Recipe::to_trace(seed, points, Level::Plain), &asked)?;
        if json {
            println!("{}", serde_json::to_string(&played)?);
        }
        all.push(played);
    }
    if !json {
        let sum = |of: fn(&SurveyPlayed) -> f64| all.iter().map(of).sum::<f64>();
        let (decisions, minutes) = (sum(|one| one.decisions as f64).max(1.0), sum(|one| one.minutes_of_all).max(1.0));
        println!(
            "{homes} homes: {decisions} decisions, {:.2} % wrong, {:.1} % open; {:.1} minutes a home, {:.2} of reading every appliance",
            100.0 * sum(|one| one.wrong as f64) / decisions,
            100.0 * sum(|one| one.open as f64) / decisions,
            sum(|one| one.minutes) / f64::from(homes.max(1)),
            sum(|one| one.minutes) / minutes
        );
    }
    Ok(ExitCode::SUCCESS)
}

fn practice(command: Practice) -> Result<ExitCode> {
    let on_file = |engine, Cases { file, json }: Cases| {
        let all_answered = answer_file(engine, &file, json)?;
        Ok(if all_answered { ExitCode::SUCCESS } else { ExitCode::FAILURE })
    };
    let (houses, drawn, world, crew, instruments, exchange, strategy, runs, json) = match command {
        Practice::Score { houses, drawn, world, crew, instruments, exchange, strategy, runs, json } => {
            (houses, drawn, world, crew, instruments, exchange, strategy, runs, json)
        }
        Practice::Trace { seed, points, level, method, alone, instruments, json } => {
            let testers = u8::try_from(instruments.plugs).unwrap_or(u8::MAX);
            let setup = TraceSetup {
                method,
                alone,
                testers,
                tone: instruments.tone,
                radio: instruments.radio,
                walkers: 1,
                phones: false,
            };
            trace_made_up(Recipe::to_trace(seed, points, level), setup, json)?;
            return Ok(ExitCode::SUCCESS);
        }
        Practice::Survey { homes, points, combine, clamp, unknown, json } => {
            return survey_made_up(homes, points, combine, clamp, unknown, json);
        }
        Practice::Service(cases) => return on_file(Engine::Service, cases),
        Practice::Legs(cases) => return on_file(Engine::Legs, cases),
        Practice::Network(cases) => return on_file(Engine::Network, cases),
        Practice::MakeRoom(cases) => return on_file(Engine::MakeRoom, cases),
        Practice::Faults(asked) => {
            faults::faults(&asked)?;
            return Ok(ExitCode::SUCCESS);
        }
    };
    let mut games: Vec<Game> = Vec::new();
    if let Some(houses) = houses {
        let text = std::fs::read_to_string(&houses).with_context(|| format!("{} cannot be read", houses.display()))?;
        games.extend(House::read_all(&text)?.iter().map(Game::from));
    }
    if let Some((points, count)) = drawn {
        let recipes = (0..count).map(|seed| Recipe::to_trace(seed, points, Level::Usual));
        games.extend(recipes.filter_map(game));
    }
    let houses = games;
    if houses.is_empty() || runs == 0 || !(0.0..=600.0).contains(&exchange) {
        bail!("nothing to play: give at least one house, one run, and 0 to 600 seconds for an exchange");
    }
    let Instruments { plugs, tone, radio } = instruments;
    let crew = Crew { alone: matches!(crew, Who::Alone), plugs, tone, radio };
    let costs = Costs { exchange_s: exchange, ..Costs::default() };
    let begun = std::time::Instant::now();
    let score = score(&houses, crew, costs, strategy, world, runs, &mut || begun.elapsed().as_secs_f64() * 1000.0);
    if json {
        println!("{}", serde_json::to_string(&score)?);
        return Ok(ExitCode::SUCCESS);
    }
    for played in &score.houses {
        println!(
            "{:12} {:6.1} min  {:4} acts  {:4} looks  {:3} proven  {} wrong  {} open",
            played.house, played.minutes, played.acts, played.looks, played.proven, played.wrong_proofs, played.open
        );
    }
    let s = &score.summary;
    println!(
        "mean {:.1} min, p90 {:.1}; oracle {:.1}; ratio {:.2}; {} of {} proofs wrong; {} by exclusion, {} of them wrong; {} open; decision p99 {:.2} ms",
        s.minutes_mean,
        s.minutes_p90,
        s.oracle_minutes_mean,
        s.ratio_to_oracle,
        s.wrong_proofs,
        s.proven_points,
        s.by_exclusion,
        s.wrong_exclusions,
        s.open_points,
        s.decision_ms_p99
    );
    Ok(ExitCode::SUCCESS)
}

fn main() -> ExitCode {
    tracing_subscriber::fmt()
        .with_env_filter(tracing_subscriber::EnvFilter::try_from_default_env().unwrap_or_else(|_| "warn".into()))
        .with_writer(std::io::stderr)
        .init();
    match run(Args::parse().command) {
        Ok(code) => code,
        Err(error) => {
            eprintln!("wayfinder: {error:#}");
            ExitCode::FAILURE
        }
    }
}

fn run(command: Command) -> Result<ExitCode> {
    match command {
        Command::Demo { data, bind, network, reset } => {
            let setup = network.setup(true)?;
            let data = match data {
                Some(data) => data,
                None => dirs::data_dir().context("this user has no data folder; name one with --data")?.join("wayfinder-demo"),
            };
            let desk = Desk::open(&data)?;
            desk.set_up_demo()?;
            if reset {
                desk.reset_demo()?;
            }
            listen(desk, bind, setup)?;
        }
        Command::Serve { data, bind, network } => {
            let setup = network.setup(false)?;
            listen(Desk::open(&data)?, bind, setup)?
        }
        Command::Export { data, home, out, without_names } => {
            let bytes = existing(data)?.export(&home, without_names)?;
            match out {
                Some(path) => std::fs::write(&path, bytes).with_context(|| format!("{} cannot be written", path.display()))?,
                None => std::io::stdout().write_all(&bytes)?,
            }
        }
        Command::Import { data, file } => {
            let mut bytes = Vec::new();
            if file.as_os_str() == "-" {
                std::io::stdin().read_to_end(&mut bytes)?;
            } else {
                bytes = std::fs::read(&file).with_context(|| format!("{} cannot be read", file.display()))?;
            }
            let (read, book) = read_home_file(&bytes)?;
            let lines = book.seq();
            Desk::open(&data)?.import(&read, book)?;
            println!("{}: {lines} lines", read.home);
        }
        Command::Check { data, json } => return kept::check(&data, json),
        Command::Backup { data, out } => kept::backup(&data, &out)?,
        Command::Restore { file, data } => kept::restore(&file, &data)?,
        Command::Move { home, to, from, tell } => {
            let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build()?;
            runtime.block_on(moving::move_home(&home, &from, &to, tell.as_deref()))?;
        }
        Command::Salvage { data, to } => return kept::salvage(&data, &to),
        Command::Loads { data, home, json } => {
            let view = loads_view(&existing(data)?.home(&home)?.study);
            if json {
                println!("{}", serde_json::to_string_pretty(&view)?);
            } else {
                print!("{}", loads_in_words(&view));
            }
        }
        Command::Work { data, home, wish, panel, json } => {
            let opened = existing(data)?.home(&home)?;
            let study = &opened.study;
            let meant = |known: &&wayfinder_core::Panel| panel.as_ref().is_none_or(|name| known.name.eq_ignore_ascii_case(name));
            let on = study.panels().all().find(meant).context("the home has no such panel")?;
            let read = read_wish(study, on, &wish).map_err(anyhow::Error::msg)?;
            let view = work_view(study, on, &read, &[], USUAL_STEPS).map_err(anyhow::Error::msg)?;
            if json {
                println!("{}", serde_json::to_string_pretty(&view)?);
            } else {
                print!("{}", ways_in_words(&view));
            }
        }
        Command::Trips { data, home, dark, json } => {
            let opened = home_named(&existing(data)?, &home)?;
            trips::trips(&opened, &dark, json)?;
        }
        Command::Changes { data, home, since, json } => {
            let opened = home_named(&existing(data)?, &home)?;
            trips::changes(&opened, &since, json)?;
        }
        Command::Service { data, home, method, new_va, json, pdf } => {
            let opened = existing(data)?.home(&home)?;
            let new = new_va.map(|va| NewLoad { kind: NewLoadKind::Fixed, va: i64::from(va), volts: 240 });
            let view = service_view(&opened.study, method.unwrap_or_else(|| usual_method(&opened.study)), new);
            if let Some(pdf) = pdf {
                let home = opened.study.name().unwrap_or_default();
                let about = format!("Service calculation. Revision {}. No permit; local code comes first.", opened.study.seq());
                let bytes = service_pdf(home, &about, &view, 215.9, 279.4)?;
                std::fs::write(&pdf, bytes).with_context(|| format!("{} cannot be written", pdf.display()))?;
                println!("{}\nWritten to {}", view.title, pdf.display());
            } else if json {
                println!("{}", serde_json::to_string_pretty(&view)?);
            } else {
                print!("{}", sheet_in_words(&view));
            }
        }
        Command::Homes { data, json } => homes(&existing(data)?, json)?,
        Command::Directory { data, home, format, json, out, panel, floor, date, by, colors } => {
            let opened = home_named(&existing(data)?, &home)?;
            let date = date.unwrap_or_else(|| time::OffsetDateTime::now_utc().date().to_string());
            let format = if json { Some("json") } else { format.as_deref() };
            let bytes =
                directory(&opened.study, format, (panel.as_deref(), floor.as_deref()), Printed { date: &date, by: &by }, colors)?;
            match out {
                Some(file) => {
                    std::fs::write(&file, bytes).with_context(|| format!("{} cannot be written", file.display()))?;
                    println!("Written to {}", file.display());
                }
                None => std::io::stdout().write_all(&bytes)?,
            }
        }
        Command::Book { data, home, out, parts, paper, date, by, colors } => {
            let opened = home_named(&existing(data)?, &home)?;
            let date = date.unwrap_or_else(|| time::OffsetDateTime::now_utc().date().to_string());
            let bytes = book(&opened.study, &parts, &paper, Printed { date: &date, by: &by }, colors)?;
            std::fs::write(&out, bytes).with_context(|| format!("{} cannot be written", out.display()))?;
            println!("Written to {}", out.display());
        }
        Command::Practice { command } => return practice(command),
        Command::Openapi => print!("{}", openapi_json()),
        Command::Rules => {
            for rule in RULES {
                for (edition, source) in rule.cited() {
                    println!("{}\t{}\t{}", rule.code, edition.name(), source.as_deref().unwrap_or("not judged"));
                }
            }
        }
        Command::Lists => {
            println!("// Generated from the core by `cargo xtask types`.");
            println!("export const LISTS = {} as const;", serde_json::to_string_pretty(&lists())?);
        }
    }
    Ok(ExitCode::SUCCESS)
}

/// A data folder that is there: reading commands make none.
fn existing(data: PathBuf) -> Result<Desk> {
    if !data.join("wayfinder.sqlite").is_file() {
        bail!("{} is no Wayfinder data folder", data.display());
    }
    Ok(Desk::open(&data)?)
}

fn service_method(text: &str) -> Result<ServiceMethod, String> {
    serde_json::from_value(text.into()).map_err(|_| "use standard, optional, existing, measured or canada".into())
}

/// As many connections at the second door as the files that this process may have open allow; it asks for as many files as it may.
fn capacity() -> Capacity {
    use rustix::process::{Resource, Rlimit, getrlimit, setrlimit};
    let limit = getrlimit(Resource::Nofile);
    let _ = setrlimit(Resource::Nofile, Rlimit { current: limit.maximum, ..limit });
    let files = getrlimit(Resource::Nofile).current.and_then(|files| usize::try_from(files).ok());
    Capacity::of_files(files.unwrap_or(usize::MAX))
}

fn listen(desk: Desk, bind: SocketAddr, setup: Setup) -> Result<()> {
    if !bind.ip().is_loopback() {
        bail!(
            "{bind} is not this machine alone. Wayfinder starts on loopback only, 127.0.0.1 or [::1]; share it with the home network on its screen."
        );
    }
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build()?;
    runtime.block_on(async {
        let listener = TcpListener::bind(bind)
            .await
            .with_context(|| format!("{bind} cannot be listened on; another program may have it. Choose another with --bind"))?;
        println!("Wayfinder is at http://{}", listener.local_addr()?);
        std::io::stdout().flush()?;
        serve(listener, desk, setup, stop_signal()).await;
        println!("Stopped. Everything recorded is kept.");
        Ok(())
    })
}

async fn stop_signal() {
    let terminate = async {
        match tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate()) {
            Ok(mut signal) => {
                signal.recv().await;
            }
            Err(error) => {
                tracing::warn!(%error, "no SIGTERM here");
                std::future::pending::<()>().await;
            }
        }
    };
    tokio::select! {
        _ = tokio::signal::ctrl_c() => {}
        () = terminate => {}
    }
}
