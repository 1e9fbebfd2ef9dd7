//! Walks in a browser, at a desk and on a phone. Each is a function of its file; this one starts the browser and runs them.

mod dark_clock;
mod directory;
mod every_screen;
mod first_home;
mod first_use;
mod homes;
mod house_plan;
mod kept;
mod lessons;
mod loads;
mod on_the_way;
mod overview;
mod panel_book;
mod practice_house;
mod several_off;
mod together;
mod trips;
mod whole_trace;
mod work;

use std::future::Future;
use std::pin::Pin;
use std::process::ExitCode;
use std::sync::Arc;
use std::time::Duration;

use anyhow::Result;
use libtest_mimic::{Arguments, Failed, Trial};
use tokio::runtime::Runtime;
use tokio::sync::RwLock;
use wayfinder_e2e::{Chrome, Page, View};

use dark_clock::*;
use directory::*;
use every_screen::*;
use first_home::*;
use first_use::*;
use homes::*;
use house_plan::*;
use kept::*;
use lessons::*;
use loads::*;
use on_the_way::*;
use overview::*;
use panel_book::*;
use practice_house::*;
use several_off::*;
use together::*;
use trips::*;
use whole_trace::*;
use work::*;

/// The longest that a walk may take; most take seconds.
const LONGEST: Duration = Duration::from_secs(1200);

type Walk = for<'a> fn(&'a Chrome, &'a Page, View) -> Pin<Box<dyn Future<Output = Result<()>> + 'a>>;

macro_rules! walks {
    ($($name:ident),* $(,)?) => {
        [$((stringify!($name), (|chrome, page, view| Box::pin($name(chrome, page, view))) as Walk)),*]
    };
}

fn main() -> ExitCode {
    let mut arguments = Arguments::from_args();
    arguments.test_threads = Some(3);
    let runtime = Arc::new(Runtime::new().expect("a runtime"));
    let chrome = if arguments.list { None } else { Some(Arc::new(Chrome::start().expect("chromedriver"))) };
    let mut trials = Vec::new();
    // The longest first, so that none of them is left to run alone at the end.
    for (name, walk) in walks![
        sixty_points_on_a_phone_as_without_a_screen,
        a_first_use_is_counted,
        a_ten_room_house_is_drawn_in_few_taps,
        a_bad_reading_stops_a_job_a_restart_does_not_and_one_stroke_takes_it_back,
    ] {
        trials.push(trial(&runtime, chrome.as_ref(), name.to_owned(), walk, View::Phone));
    }
    for (name, walk) in walks![
        loads_of_a_home,
        a_room_of_ten_appliances_is_counted,
        the_survey_asks_until_it_is_settled,
        usage_data_are_read_looked_at_and_recorded,
        from_an_empty_home_to_the_printed_card,
        what_is_wrong_is_said_and_loses_nothing,
        every_screen_can_be_used_by_everybody,
        the_logbook_strikes_out_and_back_in,
        every_kind_of_job_goes_to_its_end,
        own_words_stand_until_more_is_proven,
        stickers_begin_at_the_seventh_label,
        tests_come_round_and_the_book_is_made,
        the_front_page_says_what_matters_most,
        a_dark_outlet_behind_a_gfci_in_another_room,
        a_sign_of_danger_covers_everything,
        a_breaker_that_tripped_is_found_from_the_front_page,
        a_home_of_which_nothing_is_known_is_helped,
        an_overload_goes_on_in_work,
        half_the_house_is_dark,
        homes_are_renamed_copied_deleted_and_taken_back,
        a_damaged_home_hides_no_other_and_what_can_be_read_is_saved,
        a_fault_is_found_in_a_made_up_house,
    ] {
        for view in [View::Desk, View::Phone] {
            trials.push(trial(&runtime, chrome.as_ref(), format!("{name}_{view:?}").to_lowercase(), walk, view));
        }
    }
    for (name, walk) in walks![
        two_windows_stay_in_step,
        what_is_recorded_without_an_answer_is_sent_later_once,
        a_contradiction_is_shown_with_its_lines,
        keys_go_everywhere,
        another_size_of_panel_and_numbering,
        a_trace_goes_on_whatever_the_crew_does,
        what_waits_outlives_a_reload,
        a_page_loaded_again_without_the_program_shows_how_things_stood,
        nothing_is_kept_of_whoever_went,
        a_home_that_has_moved_sends_on_whoever_has_it_open,
        rooms_and_points_are_corrected,
        a_home_goes_out_and_comes_in_through_the_screen,
        a_card_of_42_lines_is_typed_and_kept_at_one_go,
        a_spreadsheet_is_taken_in_and_garbage_is_refused,
        breakers_are_moved_split_joined_and_paired_in_the_drawing,
        panels_behind_panels_and_what_the_checks_say,
        numbers_as_engraved_a_reading_and_a_gaping_space,
        rooms_doors_and_points_are_kept_in_the_drawing,
        the_plan_goes_out_and_comes_in,
        lengths_are_in_feet_where_they_are_said_so,
        anything_is_found_with_what_goes_dark,
        what_changed_since_a_visit_is_told_and_looked_through,
        the_own_panel_is_asked_back,
        several_off_at_once_until_every_point_is_proven,
        what_may_be_dark_only_so_long_is_brought_back,
        a_device_whose_clock_is_an_hour_ahead_counts_by_the_program,
        what_comes_up_on_the_way_of_a_trace,
        what_ends_open_says_why_and_goes_on,
        instruments_warn_and_another_try_is_another_home,
        a_made_up_house_is_measured,
        a_wish_has_its_ways_side_by_side,
        a_job_goes_to_its_end_by_the_keys_alone,
        a_made_up_panel_is_worked_on_and_stops_where_something_is_wrong,
        a_circuit_is_sized_and_a_price_list_ranks_the_ways,
        own_words_go_out_and_come_back_in_a_sheet,
        two_take_a_survey,
        two_look_for_a_fault,
        two_browsers_trace_a_house_together_to_the_end,
        without_the_code_nothing_is_shown_and_guessing_is_slowed_down,
    ] {
        trials.push(trial(&runtime, chrome.as_ref(), name.to_owned(), walk, View::Desk));
    }
    let conclusion = libtest_mimic::run(&arguments, trials);
    drop(chrome);
    conclusion.exit_code()
}

/// Walks that hold the screen to a time, or play for minutes: nothing else runs beside them.
const ALONE: [&str; 3] =
    ["two_windows_stay_in_step", "two_browsers_trace_a_house_together_to_the_end", "sixty_points_on_a_phone_as_without_a_screen"];

/// Held by every walk: as a reader, or as the only one.
static QUIET: RwLock<()> = RwLock::const_new(());

fn trial(runtime: &Arc<Runtime>, chrome: Option<&Arc<Chrome>>, name: String, walk: Walk, view: View) -> Trial {
    let (runtime, chrome, told) = (Arc::clone(runtime), chrome.cloned(), name.clone());
    Trial::test(name, move || {
        let chrome = chrome.ok_or("no browser")?;
        runtime.block_on(async {
            let (_alone, _among_others) = match ALONE.contains(&told.as_str()) {
                true => (Some(QUIET.write().await), None),
                false => (None, Some(QUIET.read().await)),
            };
            let page = chrome.open(view).await.map_err(failed)?;
            let done = tokio::time::timeout(LONGEST, walk(&chrome, &page, view)).await;
            let done = done.unwrap_or_else(|_| Err(anyhow::anyhow!("longer than {} s", LONGEST.as_secs())));
            if done.is_err()
                && let Some(path) = page.leave_behind(&told).await
            {
                eprintln!("{told}: see {}", path.display());
            }
            page.close().await.map_err(failed)?;
            done.map_err(failed)
        })
    })
}

fn failed(error: anyhow::Error) -> Failed {
    format!("{error:#}").into()
}
