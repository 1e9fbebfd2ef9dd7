use crate::fixture::{Written, written};
use crate::model::RefusalCode;
use crate::panel::{panel_view, panel_views};

#[test]
fn a_panel_has_one_back_fed_main() {
    let mut w = written("panel 12\n1-3 60/2 main\n5-7 60/2 other\nset 1-3 {\"details\": {\"back_fed_main\": true}}");
    let refusal = w.act("set 5-7 {\"details\": {\"back_fed_main\": true}}").unwrap_err();
    assert_eq!(refusal.code, RefusalCode::Occupied);
    assert!(refusal.to_string().contains("Breaker 1-3 is recorded as the back-fed main"), "{refusal}");
}

#[test]
fn the_tags_of_panels_are_worked_out_and_told_apart() {
    let w = written("panel 12\n1 20 a\nsub Shed 4\nshed: 1 15 b\nsub Stable 4\nstable: 1 15 c\nsub Sty 4\nsty: 1 15 d");
    let numbers: Vec<_> = w.home.panels().breakers().map(|b| w.home.panels().number(&b.id)).collect();
    assert_eq!(numbers, ["1", "S1", "ST1", "STY1"]);
    let mut w = w;
    w.act("with shed {\"details\": {\"tag\": \"x\"}}").unwrap();
    assert_eq!(w.home.panels().number(&"bS1".parse().unwrap()), "X1");
    assert!(w.act("with sty {\"details\": {\"tag\": \"X\"}}").is_err());
    assert!(w.act("with sty {\"name\": \"shed\"}").unwrap_err().to_string().contains("panel called “shed” already"));
}

fn leg(w: &Written, row: usize) -> String {
    format!("{:?}", panel_views(&w.home)[0].rows[row].leg)
}

#[test]
fn a_reading_overrides_the_numbering_and_a_strange_one_is_no_reading() {
    let mut w = written("panel 12\nread 3 1 0");
    assert_eq!((leg(&w, 1).as_str(), leg(&w, 2).as_str()), ("A", "A"), "row 2 as read, row 3 by the formula");
    w.act("read 5 3 240").unwrap();
    assert_eq!(leg(&w, 2), "B");
    w.act("strike 3").unwrap();
    assert_eq!((leg(&w, 1).as_str(), leg(&w, 2).as_str()), ("B", "A"), "what was read against a row follows that row");
    for (act, says) in [
        ("read 5 1 62", "62 V is neither one leg (0 V) nor two (240 V)"),
        ("read 5 1 120", "neither"),
        ("read 40 1 0", "no space 40"),
        ("read 5 40 0", "no space 40"),
    ] {
        assert!(w.act(act).unwrap_err().to_string().contains(says), "{act}");
    }
    let mut three = written("panel 12 three-phase\nread 3 1 208\nread 5 1 0");
    assert_eq!([leg(&three, 1), leg(&three, 2)], ["B", "A"]);
    let refusal = three.act("read 5 1 208").unwrap_err();
    assert!(refusal.to_string().contains("leaves two legs open"), "{refusal}");
    three.act("read 5 3 0").unwrap();
    assert_eq!(leg(&three, 2), "B");
}

#[test]
fn an_act_in_the_drawing_is_one_line_and_struck_out_it_never_was() {
    let start = "panel 12\n1 20 kitchen\n3 20 pantry\n2 15 hall\n4a 15 bell\nshare 1 3";
    for act in ["move 1 5", "move 2 2a", "move 2 6b", "join 1 3", "part 1 3", "share 1 2"] {
        let mut w = written(start);
        let (before, lines) = (w.home.home().clone(), w.book.seq());
        w.act(act).unwrap_or_else(|refusal| panic!("{act}: {refusal}"));
        assert_eq!(w.book.seq(), lines + 1, "{act} is one line");
        assert_ne!(*w.home, before, "{act}");
        w.act(&format!("strike {}", lines + 1)).unwrap();
        assert_eq!(*w.home, before, "{act} struck out");
    }
}

#[test]
fn joined_breakers_keep_what_was_known_of_both() {
    let w = written("panel 12\n1 20 #12 kitchen\n3 20 #10 pantry\nshare 1 3\nmust-stay-on 3\njoin 3 1");
    let [joined] = w.home.panels().breakers().collect::<Vec<_>>()[..] else { panic!("one is left") };
    assert_eq!((joined.number().as_str(), joined.claim.as_deref()), ("1-3", Some("pantry / kitchen")));
    assert!(joined.must_stay_on());
    assert_eq!(joined.wire.unwrap().gauge.number(), "12", "the smaller wire counts");
    assert_eq!(w.home.panels().shared_neutrals(), [vec![joined.id.clone()]], "its poles share the neutral now");
    let own = |acts: &str| {
        let w = written(&format!("panel 12\n1 20 a\n3 20 b\n{acts}\njoin 1 3"));
        let own = w.home.panels().breakers().next().unwrap().own.clone().unwrap();
        (own.text, own.proven.len())
    };
    assert_eq!(own("own 3 Pantry = p1"), ("Pantry".into(), 1));
    assert_eq!(own("own 1 Kitchen = p2\nown 3 Pantry = p1"), ("Kitchen; Pantry".into(), 2));
    let long = "x".repeat(100);
    assert_eq!(own(&format!("own 1 {long} = p2\nown 3 Pantry, north wall, by the door = p1")), (long, 1), "no word is cut");
    let quad = written("panel 12\n2a 15 a\n2b 15 b\n4a 15 c\n4b 15 d\njoin 2b 4a");
    let post = panel_view(&quad.home, &"main".parse().unwrap()).unwrap();
    let joined = post.breakers.iter().find(|b| b.number == "2b-4a").unwrap();
    assert_eq!((joined.housing, joined.volts.value()), (crate::model::Housing::Quad, 240));
}

#[test]
fn a_breaker_that_goes_takes_its_shared_neutral_with_it_and_a_filler_goes_with_its_space() {
    let w = written("panel 12\n1 20 a\n3 20 b\nshare 1 3\ntake-out 3");
    assert!(w.home.panels().shared_neutrals().is_empty());
    let filled =
        "panel 12\nfact {\"kind\": \"filler_seen\", \"panel\": \"main\", \"at\": \"5\", \"filler\": true}\n5 20 a\ntake-out 5";
    let home = written(filled).home;
    let open = panel_views(&home)[0].clone().open;
    assert_eq!(open.iter().find(|o| o.number == "5").unwrap().filler, None, "nobody has looked since");
}

#[test]
fn photos_belong_to_a_panel_and_go_with_it() {
    let photo =
        |id: &str, panel: &str| format!(r#"fact {{"kind": "photo_taken", "photo": "{id}", "panel": "{panel}", "of": "label"}}"#);
    let mut w =
        written(&format!("panel 12\nsub Shed 4\n{}\n{}\n{}", photo("p1", "main"), photo("p2", "shed"), photo("p1", "main")));
    let shown = |w: &Written| w.home.panels().photos().iter().map(|p| p.id.to_string()).collect::<Vec<_>>();
    assert_eq!(shown(&w), ["p2", "p1"], "the same photo again is one");
    w.act(r#"fact {"kind": "panel_removed", "panel": "shed"}"#).unwrap();
    assert_eq!(shown(&w), ["p1"]);
}
