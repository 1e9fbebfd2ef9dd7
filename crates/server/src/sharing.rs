//! Sharing on the home network: a second door to the program, open only while the owner says so.
//!
//! What comes in through the first door (loopback) is the owner. Through the second one nobody is anybody until they show a
//! code that the owner has just made (a helper, for one home) or the owner's passphrase. Sessions live as long as the door is
//! open; a helper is sent away at once when the owner says so. Wrong codes and passphrases are slowed down.

use std::collections::{BTreeMap, BTreeSet};
use std::net::{IpAddr, SocketAddr, UdpSocket};
use std::sync::{Mutex, MutexGuard};
use std::time::{Duration, Instant, SystemTime};

use argon2::Argon2;
use argon2::password_hash::{PasswordHash, PasswordHasher, PasswordVerifier, SaltString};
use axum::http::{HeaderMap, header};
use tokio::sync::{Semaphore, SemaphorePermit, watch};
use uuid::Uuid;
use wayfinder_core::{EntryId, HomeId, StepSide};

use crate::names::look_alike;

/// How long a code can be used.
const CODE_LASTS: Duration = Duration::from_secs(600);
/// How long somebody stays who does nothing.
const SESSION_LASTS: Duration = Duration::from_secs(12 * 3600);
/// Wrong tries before each next one has to wait.
const FREE_TRIES: u32 = 5;
/// The first wait; it doubles with every wrong try up to the longest.
const FIRST_WAIT: Duration = Duration::from_secs(30);
const LONGEST_WAIT: Duration = Duration::from_secs(900);
/// Wrong tries of all phones together before every phone has to wait.
const FREE_TRIES_OF_ALL: u32 = 40;
/// Letters and digits that cannot be taken for one another.
const ALPHABET: &[u8; 32] = b"ABCDEFGHJKLMNPQRSTUVWXYZ23456789";
const CODE_LENGTH: usize = 8;

/// The name of the cookie that says who one is.
pub(crate) const COOKIE: &str = "wayfinder";

/// The token in a request's cookie.
pub(crate) fn token(headers: &HeaderMap) -> Option<&str> {
    let cookies = headers.get_all(header::COOKIE).into_iter().filter_map(|value| value.to_str().ok());
    let mut pairs = cookies.flat_map(|cookies| cookies.split(';')).filter_map(|pair| pair.trim().split_once('='));
    pairs.find(|(name, _)| *name == COOKIE).map(|(_, token)| token)
}

/// Through which door a request came in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Door {
    /// From this machine.
    Here,
    /// From the home network, and which opening of the door it was.
    Network {
        /// Counted from 1.
        opening: u64,
    },
}

/// Who asks.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) enum Who {
    /// The owner, at this machine or signed in.
    Owner,
    /// A helper.
    Helper(Helper),
    /// Nobody yet.
    Nobody,
}

/// A helper of one home.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Helper {
    pub(crate) home: HomeId,
    pub(crate) name: String,
    pub(crate) side: StepSide,
}

/// Why somebody is not let in.
#[derive(Debug, PartialEq, Eq)]
pub(crate) enum Refused {
    /// The code is not one that can be used now.
    Code,
    /// The passphrase is another.
    Passphrase,
    /// Too many wrong tries: wait so many seconds.
    Wait(u64),
    /// Somebody of that name, or of one that looks like it, is here already.
    NameTaken,
    /// The door was closed meanwhile.
    Closed,
}

/// What a session may do in the logbook, as far as that hangs on the session and not on the kind of line.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Session {
    /// How long ago they came in, by a clock that is never set and stands still while the machine sleeps.
    pub(crate) since: Duration,
    /// When they came in, by the clock on the wall, which runs on then and may be set.
    pub(crate) came: SystemTime,
    /// The lines that they wrote since.
    pub(crate) wrote: BTreeSet<EntryId>,
}

/// A code that can be used once.
#[derive(Debug, Clone)]
pub(crate) struct Invite {
    pub(crate) code: String,
    pub(crate) home: HomeId,
    made: Instant,
}

impl Invite {
    pub(crate) fn seconds_left(&self) -> u64 {
        CODE_LASTS.saturating_sub(self.made.elapsed()).as_secs()
    }
}

/// Somebody who is in.
#[derive(Debug, Clone)]
pub(crate) struct Person {
    /// What the owner names them by.
    pub(crate) id: String,
    pub(crate) who: Who,
    token: String,
    came: (Instant, SystemTime),
    seen: Instant,
    /// The lines that were written in this session.
    wrote: BTreeSet<EntryId>,
}

impl Person {
    pub(crate) fn seen_seconds_ago(&self) -> u64 {
        self.seen.elapsed().as_secs()
    }
}

#[derive(Debug, Clone, Copy)]
struct Tries {
    wrong: u32,
    last: Instant,
}

/// Where the second door is.
#[derive(Debug, Clone)]
pub(crate) struct At {
    pub(crate) socket: SocketAddr,
    /// Where it is encrypted: the addresses that its certificate is for.
    pub(crate) named: Option<Vec<String>>,
}

#[derive(Debug, Default)]
struct Inner {
    /// Where the second door is, and what closes it.
    open: Option<(At, watch::Sender<bool>)>,
    /// How often it was opened.
    opening: u64,
    invites: Vec<Invite>,
    people: Vec<Person>,
    tries: BTreeMap<IpAddr, Tries>,
}

/// Who may come in.
#[derive(Debug)]
pub(crate) struct Sharing {
    inner: Mutex<Inner>,
    /// Changes whenever somebody is sent away.
    gone: watch::Sender<u64>,
    /// Passphrases that are hashed at once: each takes 19 MB and a whole core.
    hashing: Semaphore,
    /// Those, and those who wait for their turn.
    in_line: Semaphore,
}

/// So many passphrases are hashed at once.
const HASHED_AT_ONCE: usize = 2;
/// So many wait for that; more are asked to come again.
const WAIT_TO_BE_HASHED: usize = 16;

impl Default for Sharing {
    fn default() -> Self {
        Self {
            inner: Mutex::default(),
            gone: watch::Sender::new(0),
            hashing: Semaphore::new(HASHED_AT_ONCE),
            in_line: Semaphore::new(HASHED_AT_ONCE + WAIT_TO_BE_HASHED),
        }
    }
}

/// A turn to hash a passphrase, as long as it is kept.
pub(crate) struct Turn<'a> {
    _hashing: SemaphorePermit<'a>,
    _in_line: SemaphorePermit<'a>,
}

impl Inner {
    fn is_open_since(&self, opening: u64) -> bool {
        self.open.is_some() && self.opening == opening
    }
}

impl Sharing {
    fn lock(&self) -> MutexGuard<'_, Inner> {
        self.inner.lock().unwrap_or_else(std::sync::PoisonError::into_inner)
    }

    /// The second door is open from now on, until the receiver turns true. Gives which opening it is.
    pub(crate) fn opened(&self, at: At) -> (u64, watch::Receiver<bool>) {
        let (close, closed) = watch::channel(false);
        let mut inner = self.lock();
        inner.open = Some((at, close));
        inner.opening += 1;
        (inner.opening, closed)
    }

    pub(crate) fn is_open(&self) -> bool {
        self.lock().open.is_some()
    }

    /// Whether the door is open, and was not closed since that opening.
    pub(crate) fn is_open_since(&self, opening: u64) -> bool {
        self.lock().is_open_since(opening)
    }

    /// A turn to hash a passphrase; none where too many wait for one already.
    pub(crate) async fn turn_to_hash(&self) -> Option<Turn<'_>> {
        let _in_line = self.in_line.try_acquire().ok()?;
        let _hashing = self.hashing.acquire().await.ok()?;
        Some(Turn { _hashing, _in_line })
    }

    /// Closes the second door and sends everybody away.
    pub(crate) fn close(&self) {
        let mut inner = self.lock();
        if let Some((_, close)) = inner.open.take() {
            let _ = close.send(true);
        }
        inner.invites.clear();
        inner.people.clear();
        drop(inner);
        self.gone.send_modify(|n| *n += 1);
    }

    /// Addresses under which the second door is reached.
    pub(crate) fn addresses(&self) -> Vec<String> {
        let Some(At { socket, named }) = self.lock().open.as_ref().map(|(at, _)| at.clone()) else { return Vec::new() };
        let scheme = if named.is_some() { "https" } else { "http" };
        let named = named.unwrap_or_default();
        if !named.is_empty() {
            return named;
        }
        let ip = if socket.ip().is_unspecified() { outward_address() } else { Some(socket.ip()) };
        ip.map(|ip| format!("{scheme}://{}", SocketAddr::new(ip, socket.port()))).into_iter().collect()
    }

    /// What goes through the second door is encrypted.
    pub(crate) fn is_encrypted(&self) -> bool {
        self.lock().open.as_ref().is_some_and(|(at, _)| at.named.is_some())
    }

    /// A new code for a home.
    pub(crate) fn invite(&self, home: HomeId) -> Invite {
        let random = Uuid::new_v4().into_bytes();
        let code = random.iter().take(CODE_LENGTH).map(|byte| char::from(ALPHABET[usize::from(byte % 32)])).collect();
        let invite = Invite { code, home, made: Instant::now() };
        let mut inner = self.lock();
        inner.invites.retain(|i| i.made.elapsed() < CODE_LASTS);
        inner.invites.push(invite.clone());
        invite
    }

    /// The codes that can be used now.
    pub(crate) fn invites(&self) -> Vec<Invite> {
        self.lock().invites.iter().filter(|i| i.made.elapsed() < CODE_LASTS).cloned().collect()
    }

    /// The home that a code leads to, where it can be used now. Nobody who has to wait learns whether it can; guesses are
    /// counted by [`Sharing::join`].
    pub(crate) fn home_of(&self, from: IpAddr, code: &str) -> Result<Option<HomeId>, Refused> {
        Self::may_try(&self.lock(), from)?;
        let code = plain(code);
        Ok(self.invites().into_iter().find(|invite| invite.code == code).map(|invite| invite.home))
    }

    /// Who is in.
    pub(crate) fn people(&self) -> Vec<Person> {
        self.lock().people.clone()
    }

    /// The helpers of a home who walk, by name.
    pub(crate) fn walkers(&self, home: &HomeId) -> Vec<String> {
        let walks = |person: &Person| match &person.who {
            Who::Helper(helper) if helper.home == *home && helper.side == StepSide::Walk => Some(helper.name.clone()),
            _ => None,
        };
        self.lock().people.iter().filter_map(walks).collect()
    }

    /// Sends somebody away.
    pub(crate) fn send_away(&self, id: &str) -> bool {
        let mut inner = self.lock();
        let before = inner.people.len();
        inner.people.retain(|person| person.id != id);
        let gone = inner.people.len() < before;
        drop(inner);
        self.gone.send_modify(|n| *n += 1);
        gone
    }

    /// A new passphrase: whoever came in by an old one goes, but for whoever set it.
    pub(crate) fn send_owners_away(&self, but: Option<&str>) {
        self.lock().people.retain(|person| person.who != Who::Owner || Some(person.token.as_str()) == but);
        self.gone.send_modify(|n| *n += 1);
    }

    /// The session of a token; none where they are not in any more.
    pub(crate) fn session(&self, token: &str) -> Option<Session> {
        let inner = self.lock();
        let person = inner.people.iter().find(|person| person.token == token)?;
        Some(Session { since: person.came.0.elapsed(), came: person.came.1, wrote: person.wrote.clone() })
    }

    /// Remembers lines that were written in a session.
    pub(crate) fn wrote(&self, token: &str, lines: impl IntoIterator<Item = EntryId>) {
        if let Some(person) = self.lock().people.iter_mut().find(|person| person.token == token) {
            person.wrote.extend(lines);
        }
    }

    /// Somebody goes.
    pub(crate) fn leave(&self, token: &str) {
        self.lock().people.retain(|person| person.token != token);
        self.gone.send_modify(|n| *n += 1);
    }

    /// Who has this token.
    pub(crate) fn who(&self, token: Option<&str>) -> Who {
        let mut inner = self.lock();
        inner.people.retain(|person| person.seen.elapsed() < SESSION_LASTS);
        let person = token.and_then(|token| inner.people.iter_mut().find(|person| person.token == token));
        person.map_or(Who::Nobody, |person| {
            person.seen = Instant::now();
            person.who.clone()
        })
    }

    /// Resolves when whoever has this token is no longer in.
    pub(crate) async fn gone(&self, token: String) {
        let mut gone = self.gone.subscribe();
        while self.lock().people.iter().any(|person| person.token == token) {
            if gone.changed().await.is_err() {
                return;
            }
        }
    }

    /// Lets somebody try; says how long they have to wait.
    fn may_try(inner: &Inner, from: IpAddr) -> Result<(), Refused> {
        let waits = |wrong: u32, free: u32, last: Instant| {
            let wait = match wrong.checked_sub(free) {
                None => Duration::ZERO,
                Some(over) => (FIRST_WAIT * 2_u32.pow(over.min(5))).min(LONGEST_WAIT),
            };
            wait.saturating_sub(last.elapsed())
        };
        let own = inner.tries.get(&from).map_or(Duration::ZERO, |t| waits(t.wrong, FREE_TRIES, t.last));
        let all: u32 = inner.tries.values().map(|t| t.wrong).sum();
        let last = inner.tries.values().map(|t| t.last).max();
        let of_all = last.map_or(Duration::ZERO, |last| waits(all, FREE_TRIES_OF_ALL, last));
        let wait = own.max(of_all);
        if wait.is_zero() { Ok(()) } else { Err(Refused::Wait(wait.as_secs() + 1)) }
    }

    fn was_wrong(inner: &mut Inner, from: IpAddr) {
        let now = Instant::now();
        inner.tries.retain(|_, t| t.last.elapsed() < LONGEST_WAIT);
        let tries = inner.tries.entry(from).or_insert(Tries { wrong: 0, last: now });
        *tries = Tries { wrong: tries.wrong + 1, last: now };
    }

    fn let_in(inner: &mut Inner, who: Who) -> String {
        let token = format!("{}{}", Uuid::new_v4().simple(), Uuid::new_v4().simple());
        let (id, now) = (Uuid::new_v4().simple().to_string(), Instant::now());
        inner.people.push(Person {
            id,
            who,
            token: token.clone(),
            came: (now, SystemTime::now()),
            seen: now,
            wrote: BTreeSet::new(),
        });
        token
    }

    /// A helper with a code, at that opening of the door; gives their token.
    pub(crate) fn join(&self, at: u64, from: IpAddr, code: &str, name: &str, side: StepSide) -> Result<String, Refused> {
        let mut inner = self.lock();
        if !inner.is_open_since(at) {
            return Err(Refused::Closed);
        }
        Self::may_try(&inner, from)?;
        let code = plain(code);
        let Some(n) = inner.invites.iter().position(|i| i.code == code && i.made.elapsed() < CODE_LASTS) else {
            Self::was_wrong(&mut inner, from);
            return Err(Refused::Code);
        };
        let taken = |person: &Person| matches!(&person.who, Who::Helper(h) if look_alike(&h.name, name));
        if look_alike("owner", name) || inner.people.iter().any(taken) {
            return Err(Refused::NameTaken);
        }
        let home = inner.invites.remove(n).home;
        inner.tries.remove(&from);
        Ok(Self::let_in(&mut inner, Who::Helper(Helper { home, name: name.to_owned(), side })))
    }

    /// The owner with the passphrase, at that opening of the door; gives their token. `hash` says what is kept of it: it is read
    /// once more after the hashing, so that whoever began before a new passphrase does not come in by the old one.
    pub(crate) fn sign_in(
        &self,
        at: u64,
        from: IpAddr,
        passphrase: &str,
        hash: impl Fn() -> Option<String>,
    ) -> Result<String, Refused> {
        Self::may_try(&self.lock(), from)?;
        let kept = hash();
        let right = kept.as_deref().is_some_and(|hash| is_right(passphrase, hash)) && hash() == kept;
        let mut inner = self.lock();
        if !inner.is_open_since(at) {
            return Err(Refused::Closed);
        }
        // Tries that ran beside this one count, too.
        Self::may_try(&inner, from)?;
        if !right {
            Self::was_wrong(&mut inner, from);
            return Err(Refused::Passphrase);
        }
        inner.tries.remove(&from);
        Ok(Self::let_in(&mut inner, Who::Owner))
    }
}

/// A code as it is kept, whatever it is typed like.
fn plain(code: &str) -> String {
    code.chars().filter(char::is_ascii_alphanumeric).collect::<String>().to_ascii_uppercase()
}

/// What is kept of a passphrase. Slow on purpose.
pub(crate) fn hashed(passphrase: &str) -> Option<String> {
    let salt = SaltString::encode_b64(Uuid::new_v4().as_bytes()).ok()?;
    Argon2::default().hash_password(passphrase.as_bytes(), &salt).ok().map(|hash| hash.to_string())
}

fn is_right(passphrase: &str, hash: &str) -> bool {
    PasswordHash::new(hash).is_ok_and(|hash| Argon2::default().verify_password(passphrase.as_bytes(), &hash).is_ok())
}

/// The address of this machine on its network: the one it would send from. Nothing is sent.
fn outward_address() -> Option<IpAddr> {
    let socket = UdpSocket::bind("0.0.0.0:0").ok()?;
    // An address for documentation (RFC 5737): choosing a way to it names the interface.
    socket.connect("192.0.2.1:9").ok()?;
    socket.local_addr().ok().map(|at| at.ip()).filter(|ip| !ip.is_unspecified())
}

#[cfg(test)]
mod tests {
    use super::*;

    const PHONE: IpAddr = IpAddr::V4(std::net::Ipv4Addr::new(10, 0, 0, 7));
    const OTHER: IpAddr = IpAddr::V4(std::net::Ipv4Addr::new(10, 0, 0, 8));

    fn home() -> HomeId {
        "hut".parse().unwrap()
    }

    /// With the door open for the first time.
    fn opened() -> Sharing {
        let sharing = Sharing::default();
        let (opening, _) = sharing.opened(At { socket: (std::net::Ipv4Addr::LOCALHOST, 4760).into(), named: None });
        assert_eq!(opening, 1);
        sharing
    }

    #[test]
    fn a_code_lets_one_helper_in_once_and_only_into_its_home() {
        let sharing = opened();
        let code = sharing.invite(home()).code;
        assert_eq!(code.len(), CODE_LENGTH);
        let typed = format!("{}-{}", code[..4].to_lowercase(), &code[4..]);
        let token = sharing.join(1, PHONE, &typed, "Ada", StepSide::Walk).unwrap();
        let helper = Helper { home: home(), name: "Ada".into(), side: StepSide::Walk };
        assert_eq!(sharing.who(Some(&token)), Who::Helper(helper));
        assert_eq!(sharing.join(1, PHONE, &code, "Bo", StepSide::Walk), Err(Refused::Code), "a code is used once");
        let second = sharing.invite(home()).code;
        assert_eq!(sharing.join(1, PHONE, &second, "ada", StepSide::Panel), Err(Refused::NameTaken));
        assert_eq!(sharing.join(1, PHONE, &second, "Owner", StepSide::Panel), Err(Refused::NameTaken));
        assert!(sharing.join(1, PHONE, &second, "Bo", StepSide::Panel).is_ok());
        assert_eq!(sharing.who(Some("another")), Who::Nobody);
        let id = sharing.people()[0].id.clone();
        assert!(sharing.send_away(&id) && !sharing.send_away(&id));
        assert_eq!(sharing.who(Some(&token)), Who::Nobody);
        sharing.close();
        assert!(sharing.people().is_empty() && sharing.invites().is_empty());
    }

    #[test]
    fn wrong_tries_are_slowed_down_for_one_phone_and_not_for_another() {
        let sharing = opened();
        let code = sharing.invite(home()).code;
        for _ in 0..FREE_TRIES {
            assert_eq!(sharing.join(1, PHONE, "AAAAAAAA", "Eve", StepSide::Walk), Err(Refused::Code));
        }
        // Also the right one has to wait, else it could be guessed on.
        let Err(Refused::Wait(seconds)) = sharing.join(1, PHONE, &code, "Eve", StepSide::Walk) else { panic!("not slowed down") };
        assert!((25..=31).contains(&seconds), "{seconds}");
        assert!(matches!(sharing.sign_in(1, PHONE, "guess", || None), Err(Refused::Wait(_))));
        assert!(matches!(sharing.home_of(PHONE, &code), Err(Refused::Wait(_))), "nor may it be asked for");
        assert_eq!(sharing.home_of(OTHER, &code), Ok(Some(home())));
        assert!(sharing.join(1, OTHER, &code, "Ada", StepSide::Walk).is_ok());
    }

    #[test]
    fn many_phones_together_are_slowed_down_too() {
        let sharing = opened();
        for n in 0..FREE_TRIES_OF_ALL {
            let from = IpAddr::V4(std::net::Ipv4Addr::new(10, 0, 1, (n / 4) as u8));
            assert_eq!(sharing.join(1, from, "AAAAAAAA", "Eve", StepSide::Walk), Err(Refused::Code));
        }
        assert!(matches!(sharing.join(1, OTHER, "AAAAAAAA", "Eve", StepSide::Walk), Err(Refused::Wait(_))));
    }

    #[test]
    fn a_passphrase_is_kept_as_a_hash_that_knows_it() {
        let hash = hashed("three brass bells").unwrap();
        assert!(hash.starts_with("$argon2id$") && !hash.contains("brass"));
        assert_ne!(hash, hashed("three brass bells").unwrap(), "salted");
        let sharing = opened();
        assert_eq!(sharing.sign_in(1, PHONE, "three brass bell", || Some(hash.clone())), Err(Refused::Passphrase));
        let token = sharing.sign_in(1, PHONE, "three brass bells", || Some(hash.clone())).unwrap();
        assert_eq!(sharing.who(Some(&token)), Who::Owner);
        assert_eq!(sharing.sign_in(1, PHONE, "anything", || None), Err(Refused::Passphrase), "none was set");
    }

    #[test]
    fn nobody_comes_in_at_a_door_that_was_closed_meanwhile_nor_by_a_passphrase_that_was_replaced() {
        let sharing = opened();
        let hash = hashed("three brass bells").unwrap();
        let code = sharing.invite(home()).code;
        sharing.close();
        let again = sharing.opened(At { socket: (std::net::Ipv4Addr::LOCALHOST, 4760).into(), named: None }).0;
        assert_eq!(sharing.join(1, PHONE, &code, "Ada", StepSide::Walk), Err(Refused::Closed));
        assert_eq!(sharing.sign_in(1, PHONE, "three brass bells", || Some(hash.clone())), Err(Refused::Closed));
        assert!(sharing.sign_in(again, PHONE, "three brass bells", || Some(hash.clone())).is_ok());
        // Replaced while this one was hashed.
        let reads = std::cell::Cell::new(0);
        let kept = || {
            reads.set(reads.get() + 1);
            Some(if reads.get() == 1 { hash.clone() } else { hashed("another one it is").unwrap() })
        };
        assert_eq!(sharing.sign_in(again, PHONE, "three brass bells", kept), Err(Refused::Passphrase));
    }

    #[test]
    fn a_new_passphrase_sends_away_whoever_came_in_by_the_old_one() {
        let sharing = opened();
        let hash = hashed("three brass bells").unwrap();
        let owner = || sharing.sign_in(1, PHONE, "three brass bells", || Some(hash.clone())).unwrap();
        let (old, own) = (owner(), owner());
        let code = sharing.invite(home()).code;
        let helper = sharing.join(1, PHONE, &code, "Ada", StepSide::Walk).unwrap();
        sharing.send_owners_away(Some(&own));
        assert_eq!((sharing.who(Some(&old)), sharing.who(Some(&own))), (Who::Nobody, Who::Owner));
        assert!(matches!(sharing.who(Some(&helper)), Who::Helper(_)));
    }

    #[tokio::test]
    async fn so_many_passphrases_are_hashed_at_once_so_many_wait_and_the_rest_come_again() {
        let sharing = Sharing::default();
        let first = [sharing.turn_to_hash().await.unwrap(), sharing.turn_to_hash().await.unwrap()];
        let mut waiting: Vec<_> = (0..WAIT_TO_BE_HASHED).map(|_| Box::pin(sharing.turn_to_hash())).collect();
        for turn in &mut waiting {
            assert!(futures_util::poll!(turn).is_pending());
        }
        assert!(sharing.turn_to_hash().await.is_none());
        drop(first);
        for turn in waiting {
            assert!(turn.await.is_some());
        }
    }

    #[test]
    fn a_session_knows_its_own_lines_and_no_other_session_does() {
        let sharing = opened();
        let come = |name: &str| {
            let code = sharing.invite(home()).code;
            sharing.join(1, PHONE, &code, name, StepSide::Walk).unwrap()
        };
        let (ada, ben) = (come("Ada"), come("Ben"));
        let line: EntryId = "look-1".parse().unwrap();
        sharing.wrote(&ada, [line.clone()]);
        assert!(sharing.session(&ada).unwrap().wrote.contains(&line));
        assert!(sharing.session(&ben).unwrap().wrote.is_empty());
        let id = sharing.people()[0].id.clone();
        sharing.send_away(&id);
        assert_eq!(sharing.session(&ada), None);
        assert!(sharing.session(&come("Ada")).unwrap().wrote.is_empty(), "the name is no proof");
    }
}
