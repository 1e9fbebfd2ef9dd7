//! Sheets out and in again; sheets as people make them; garbage.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::io::{Cursor, Write};

use calamine::{Ods, Reader, Xlsx};
use rust_xlsxwriter::{Format, Formula, Workbook};
use wayfinder_core::*;
use wayfinder_fixture::written;
use wayfinder_formats::{MOST_ROWS, SheetError, SheetKind, directory_table, read_rows, write_sheet, write_table};

const CARD: &str = "1 20 gfci kitchen, north\n3a 15 bell\n3b 15 porch \"lamp\"\n5-7 50/2 #6 range\n11-13 20/2 tied pantry / hall\n\
                    2a-4b 30/2 quad dryer\n2b-4a 20/2 quad heater\n6b-8a 20/2 slim pump\n10 15 dual #12al =loft & <more>";

fn home(card: &str) -> Study {
    written(&format!("panel 24\nwith main {{\"name\": \"Main & only\"}}\n{card}")).home
}

fn facts(home: &Home, card: &str) -> Vec<Fact> {
    let mut n = 0;
    let lines = read_card(home, home.panels().all().next().unwrap(), card, || {
        n += 1;
        format!("b{n}").parse().unwrap()
    });
    let facts = lines.into_iter().filter_map(|line| match line.outcome {
        LabelOutcome::Breaker { facts, .. } => Some(facts),
        LabelOutcome::Nothing => None,
        LabelOutcome::Unclear { wrong, .. } => panic!("{}: {wrong}", line.text),
    });
    facts.flatten().collect()
}

#[test]
fn what_is_written_is_read_back_the_same() {
    let home = home(CARD);
    let panel = home.panels().all().next().unwrap();
    for kind in [SheetKind::Csv, SheetKind::Xlsx, SheetKind::Ods] {
        let bytes = write_sheet(&home, panel, kind).unwrap();
        let sheet = read_sheet(panel, &read_rows(&bytes).unwrap(), None);
        assert_eq!(sheet.passed_over, [], "{kind:?}");
        assert_eq!(sheet.text.lines().filter(|line| !line.ends_with("open")).count(), 9, "{kind:?}\n{}", sheet.text);
        assert_eq!(facts(&home, &sheet.text), [], "{kind:?}: nothing new is in it\n{}", sheet.text);
    }
}

/// `calamine` reads what `rust_xlsxwriter` and this crate wrote: numbers as numbers, texts as texts.
#[test]
fn a_general_reader_finds_the_same_cells() {
    let home = home(CARD);
    let panel = home.panels().all().next().unwrap();
    let xlsx = write_sheet(&home, panel, SheetKind::Xlsx).unwrap();
    let ods = write_sheet(&home, panel, SheetKind::Ods).unwrap();
    let mut xlsx: Xlsx<_> = calamine::open_workbook_from_rs(Cursor::new(xlsx)).unwrap();
    let mut ods: Ods<_> = calamine::open_workbook_from_rs(Cursor::new(ods)).unwrap();
    assert_eq!(ods.sheet_names(), ["Main & only"]);
    for range in [xlsx.worksheet_range_at(0).unwrap().unwrap(), ods.worksheet_range_at(0).unwrap().unwrap()] {
        let cell = |row, column| range.get_value((row, column)).unwrap().clone();
        assert_eq!(cell(0, 0), "Space");
        assert_eq!(cell(1, 0), "1");
        assert_eq!(cell(1, 1), 20.0);
        assert_eq!(cell(1, 6), "kitchen, north");
        assert!(range.rows().any(|row| row[6] == "=loft & <more>"), "a text that looks like a formula stays a text");
    }
}

#[test]
fn a_sheet_as_people_make_it_merged_headings_blank_rows_and_formulas() {
    let mut book = Workbook::new();
    book.add_worksheet().set_name("Notes").unwrap();
    let sheet = book.add_worksheet();
    sheet.merge_range(0, 0, 0, 3, "PANEL A - 2nd floor", &Format::new().set_bold()).unwrap();
    for (n, heading) in ["Ckt", "Load served", "Brkr size", "Type"].iter().enumerate() {
        sheet.write(2, n as u16, *heading).unwrap();
    }
    for (row, cells) in [
        (3, ["1", "Kitchen", "20A", "GFCI"]),
        (5, ["5", "Range", "2P50", ""]),
        (6, ["7", "", "", ""]),
        (9, ["9", "Fridge", "15", ""]),
    ] {
        for (column, cell) in cells.iter().enumerate() {
            match cell.parse::<f64>() {
                Ok(number) => sheet.write(row, column as u16, number).unwrap(),
                Err(_) => sheet.write(row, column as u16, *cell).unwrap(),
            };
        }
    }
    sheet.write_formula(10, 0, Formula::new("=5+6").set_result("11")).unwrap();
    sheet.write(10, 1, "Loft").unwrap();
    sheet.write_formula(10, 2, Formula::new("=SUM(A1:A2)").set_result("15")).unwrap();
    let bytes = book.save_to_buffer().unwrap();
    let home = home("");
    let sheet = read_sheet(home.panels().all().next().unwrap(), &read_rows(&bytes).unwrap(), None);
    use ColumnRole::{Amps, Kind, Label, Space};
    assert_eq!(sheet.columns, [Space, Label, Amps, Kind]);
    assert_eq!(sheet.text, "1 20 gfci Kitchen\n5-7 50/2 Range\n9 15 Fridge\n11 15 Loft\n", "the saved values of formulas count");
}

#[test]
fn csv_with_semicolons_tabs_old_letters_and_a_byte_order_mark() {
    for bytes in [
        "\u{feff}Ckt;Load;Amps\n1;Küche;20\n".as_bytes().to_vec(),
        "Ckt\tLoad\tAmps\r\n1\tKüche\t20\r\n".as_bytes().to_vec(),
        b"Ckt,Load,Amps\n1,K\xfcche,20\n".to_vec(),
        "Ckt,Load,Amps\n\n1,\"Küche\",20".as_bytes().to_vec(),
    ] {
        let home = home("");
        let sheet = read_sheet(home.panels().all().next().unwrap(), &read_rows(&bytes).unwrap(), None);
        assert_eq!(sheet.text, "1 20 Küche\n");
    }
}

fn packed(files: &[(&str, &[u8])]) -> Vec<u8> {
    let mut zip = zip::ZipWriter::new(Cursor::new(Vec::new()));
    for (name, bytes) in files {
        zip.start_file(*name, zip::write::SimpleFileOptions::default()).unwrap();
        zip.write_all(bytes).unwrap();
    }
    zip.finish().unwrap().into_inner()
}

#[test]
fn garbage_is_refused_with_a_sentence() {
    let many: String = (0..100_000).map(|n| format!("{n},20,hall\n")).collect();
    let bomb = vec![b' '; 60 << 20];
    let filled = r#"<?xml version="1.0"?><o xmlns:table="t" xmlns:text="x"><table:table><table:table-row table:number-rows-repeated="1048576"><table:table-cell table:number-columns-repeated="16384"><text:p>x</text:p></table:table-cell></table:table-row></table:table></o>"#;
    let cases: [(&str, Vec<u8>, &str); 10] = [
        ("binary as CSV", (0..=255).cycle().take(5000).collect(), "no spreadsheet"),
        ("nothing", Vec::new(), "nothing in this sheet"),
        ("blank lines", b"\n\n , \n".to_vec(), "nothing in this sheet"),
        ("100 000 rows", many.into_bytes(), "more than 2000 rows"),
        ("some archive", packed(&[("a.txt", b"hello")]), "no spreadsheet"),
        ("a broken archive", b"PK\x03\x04 and then nothing".to_vec(), "no spreadsheet"),
        ("unpacks to much", packed(&[("content.xml", &bomb)]), "unpacks to more than 48 MB"),
        ("a full sheet by repetition", packed(&[("content.xml", filled.as_bytes())]), "more than 2000 rows"),
        ("broken XML", packed(&[("content.xml", b"<a><b></a>")]), "cannot be read"),
        ("broken XLSX", packed(&[("xl/workbook.xml", b"<workbook")]), "cannot be read"),
    ];
    for (what, bytes, says) in cases {
        let error = read_rows(&bytes).map(|rows| rows.len()).unwrap_err();
        assert!(error.to_string().contains(says), "{what}: {error}");
    }
    let just: String = (0..MOST_ROWS).map(|n| format!("{n},20,hall\n")).collect();
    assert_eq!(read_rows(just.as_bytes()).unwrap().len(), MOST_ROWS);
}

#[test]
fn one_cell_in_the_far_corner_costs_no_more_than_that_cell() {
    let mut book = Workbook::new();
    let sheet = book.add_worksheet();
    sheet.write(0, 0, "Ckt").unwrap();
    sheet.write(1_048_575, 0, "end").unwrap();
    assert!(matches!(read_rows(&book.save_to_buffer().unwrap()), Err(SheetError::TooManyRows)));
    let mut book = Workbook::new();
    let sheet = book.add_worksheet();
    sheet.write(0, 0, "Ckt").unwrap();
    sheet.write(1, 16_383, "end").unwrap();
    assert_eq!(read_rows(&book.save_to_buffer().unwrap()).unwrap(), [["Ckt"]]);
    let ods = r#"<o xmlns:table="t" xmlns:text="x"><table:table><table:table-row><table:table-cell><text:p>5</text:p></table:table-cell><table:table-cell table:number-columns-repeated="16383"/></table:table-row><table:table-row table:number-rows-repeated="1048575"><table:table-cell table:number-columns-repeated="16384"/></table:table-row></table:table></o>"#;
    assert_eq!(read_rows(&packed(&[("content.xml", ods.as_bytes())])).unwrap(), [["5"]]);
}

/// The directory goes out and comes back unchanged; what was changed in it is proposed; what looks like a formula stays a text.
#[test]
fn own_words_go_out_and_come_back() {
    let home = home(&format!("{CARD}\nown 10 =1+1\nown 1 Kitchen, north"));
    let rows = directory_rows(&home);
    for kind in [SheetKind::Csv, SheetKind::Xlsx, SheetKind::Ods] {
        let bytes = write_table(&directory_table(&rows), kind).unwrap();
        let mut back = read_rows(&bytes).unwrap();
        let read = read_words(&home, &back).unwrap();
        assert!(read.proposed.is_empty() && read.passed_over.is_empty(), "{kind:?}: {read:?}");
        let row = back.iter().position(|row| row[1] == "10").unwrap();
        assert_eq!(back[row][4], "=1+1", "{kind:?}");
        back[row][4] = "Loft: lights".into();
        let [one] = &read_words(&home, &back).unwrap().proposed[..] else { panic!("one is changed") };
        assert_eq!((one.tag.as_str(), one.before.as_str(), one.after.as_str()), ("10", "=1+1", "Loft: lights"));
    }
    let csv = String::from_utf8(write_table(&directory_table(&rows), SheetKind::Csv).unwrap()).unwrap();
    assert!(csv.contains("'=1+1") && !csv.contains(",=1+1"), "{csv}");
    let xlsx = write_table(&directory_table(&rows), SheetKind::Xlsx).unwrap();
    let mut xlsx: Xlsx<_> = calamine::open_workbook_from_rs(Cursor::new(xlsx)).unwrap();
    assert!(xlsx.worksheet_formula("Directory").unwrap().is_empty(), "no cell is a formula");
}

/// The directory as openpyxl reads it, which neither wrote it nor reads it elsewhere: every cell as it was written, none a formula.
#[test]
fn another_reader_finds_every_cell_of_the_directory_and_no_formula() {
    let packages = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../target/python");
    assert!(packages.join("openpyxl").is_dir(), "openpyxl is missing; `cargo xtask test` fetches it into target/python");
    let home = home(&format!("{CARD}\nown 10 =1+1\nown 1 Kitchen, north"));
    let rows = directory_rows(&home);
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("directory.xlsx");
    std::fs::write(&path, write_table(&directory_table(&rows), SheetKind::Xlsx).unwrap()).unwrap();
    let script = "import json, sys, openpyxl
sheet = openpyxl.load_workbook(sys.argv[1]).worksheets[0]
print(json.dumps([[['' if c.value is None else str(c.value), c.data_type] for c in row] for row in sheet.iter_rows()]))";
    let mut python = std::process::Command::new("python3");
    let out = python.args(["-c", script]).arg(&path).env("PYTHONPATH", packages).output().unwrap();
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    let read: Vec<Vec<(String, String)>> = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(read[0].iter().map(|(text, _)| text.as_str()).collect::<Vec<_>>(), DIRECTORY_COLUMNS);
    assert_eq!(read.len(), rows.len() + 1);
    for (read, row) in read[1..].iter().zip(&rows) {
        assert_eq!(read.iter().map(|(text, _)| text.as_str()).collect::<Vec<_>>(), row.each_ref().map(String::as_str));
    }
    assert!(read.iter().flatten().all(|(_, kind)| kind != "f"), "no cell is a formula");
}
