//! The live stream: a screen hears that the logbook has grown and asks again.

use std::convert::Infallible;
use std::sync::Arc;
use std::time::Duration;

use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::Sse;
use axum::response::sse::{Event, KeepAlive};
use futures_util::{Stream, StreamExt, stream};
use tokio_stream::wrappers::BroadcastStream;
use tokio_stream::wrappers::errors::BroadcastStreamRecvError;
use wayfinder_core::HomeId;

use crate::App;
use crate::desk::Grown;
use crate::guard::{Asked, Visit};
use crate::in_home::{HomePath, InHome};
use crate::problem::Problem;
use crate::sharing::Door;

#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct After {
    /// The last sequence the screen knows; the browser's `Last-Event-ID` counts before it.
    after: Option<u64>,
}

/// Server-sent events `grown` whose data and id are the logbook's last sequence: one at once when it is past
/// `after`, then one for every write. A reset demo may go back to a smaller sequence.
#[utoipa::path(get, path = "/api/homes/{home}/stream", params(HomePath, After), responses((status = 200, content_type = "text/event-stream", body = String), (status = 404, body = Problem)))]
pub(crate) async fn stream(
    home: InHome,
    State(app): State<App>,
    Asked(after): Asked<After>,
    visit: Visit,
    headers: HeaderMap,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, Problem> {
    // Subscribed before it is read how far the logbook is, so that nothing written in between is missed.
    let receiver = app.grown.subscribe();
    let id = home.id.clone();
    let last = headers.get("last-event-id").and_then(|v| v.to_str().ok()).and_then(|v| v.parse().ok()).or(after.after);
    let now = seq_of(&app.desk, &id).unwrap_or(home.seq());
    let first = stream::iter((last != Some(now)).then_some(now));
    let desk = std::sync::Arc::clone(&app.desk);
    let grown = BroadcastStream::new(receiver).filter_map(move |grown| {
        let seq = to_be_told(grown, &id, || seq_of(&desk, &id));
        async move { seq }
    });
    let mut closing = app.closing.clone();
    let sharing = Arc::clone(&app.sharing);
    let own = (visit.door != Door::Here).then(|| visit.token.unwrap_or_default());
    let closed = async move {
        let sent_away = async {
            match own {
                Some(token) => sharing.gone(token).await,
                None => std::future::pending().await,
            }
        };
        tokio::select! {
            _ = closing.wait_for(|closing| *closing) => {}
            () = sent_away => {}
        }
    };
    let events = first
        .chain(grown)
        .map(|seq| Ok(Event::default().event("grown").id(seq.to_string()).data(seq.to_string())))
        .take_until(closed);
    Ok(Sse::new(events).keep_alive(KeepAlive::new().interval(Duration::from_secs(15))))
}

/// What a stream of a home is told of what grew. Where it fell behind it is told where the logbook is, so that the screen asks anew.
fn to_be_told(grown: Result<Grown, BroadcastStreamRecvError>, id: &HomeId, now: impl FnOnce() -> Option<u64>) -> Option<u64> {
    match grown {
        Ok(grown) if grown.home == *id => Some(grown.seq),
        Ok(_) => None,
        Err(BroadcastStreamRecvError::Lagged(_)) => now(),
    }
}

fn seq_of(desk: &crate::Desk, id: &HomeId) -> Option<u64> {
    desk.at_hand(id).map(|opened| opened.book.seq())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn a_stream_that_fell_behind_is_told_where_the_logbook_is() {
        let id = |name: &str| -> HomeId { name.parse().unwrap_or_else(|_| panic!("no id")) };
        let (grown, receiver) = tokio::sync::broadcast::channel(4);
        for seq in 1..=9 {
            assert!(grown.send(Grown { home: id(if seq < 3 { "hut" } else { "mill" }), seq }).is_ok());
        }
        drop(grown);
        let told = BroadcastStream::new(receiver).map(|grown| to_be_told(grown, &id("hut"), || Some(2)));
        // The two lines of the hut are among those that are gone.
        assert_eq!(told.collect::<Vec<_>>().await, [Some(2), None, None, None, None]);
    }
}
