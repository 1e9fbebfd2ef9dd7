//! The second door with a certificate: what goes through it is encrypted, whoever does not encrypt is shown the way, and a
//! certificate that is of no use is told at the start.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

mod support;

use std::fs;
use std::net::{Ipv4Addr, SocketAddr};
use std::path::Path;
use std::process::Command;
use std::sync::Arc;
use std::time::Duration;

use rcgen::{CertifiedKey, generate_simple_self_signed};
use rustls::pki_types::{CertificateDer, ServerName};
use rustls::{ClientConfig, RootCertStore};
use serde_json::{Value, json};
use support::get;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpStream};
use tokio_rustls::TlsConnector;
use wayfinder_server::{Desk, Patience, Setup, Tls, serve};

/// Writes a certificate for these names and its key, and gives the certificate.
fn certify(tls: &Tls, names: &[&str]) -> CertificateDer<'static> {
    let names: Vec<String> = names.iter().map(|name| (*name).to_owned()).collect();
    let CertifiedKey { cert, signing_key } = generate_simple_self_signed(names).unwrap();
    fs::write(&tls.certificate, cert.pem()).unwrap();
    fs::write(&tls.key, signing_key.serialize_pem()).unwrap();
    cert.der().clone()
}

fn in_folder(folder: &Path) -> Tls {
    Tls { certificate: folder.join("cert.pem"), key: folder.join("key.pem") }
}

/// Asks as somebody who knows that certificate; gives the whole answer.
async fn ask(door: SocketAddr, known: &CertificateDer<'static>, name: &str, request: &str) -> Result<String, std::io::Error> {
    let mut roots = RootCertStore::empty();
    roots.add(known.clone()).unwrap();
    let config = ClientConfig::builder_with_provider(Arc::new(rustls::crypto::ring::default_provider()))
        .with_safe_default_protocol_versions()
        .unwrap()
        .with_root_certificates(roots)
        .with_no_client_auth();
    let connector = TlsConnector::from(Arc::new(config));
    let stream = TcpStream::connect(door).await.unwrap();
    let mut stream = connector.connect(ServerName::try_from(name.to_owned()).unwrap(), stream).await?;
    stream.write_all(request.as_bytes()).await?;
    let mut answer = String::new();
    stream.read_to_string(&mut answer).await?;
    Ok(answer)
}

fn get_request(path: &str, name: &str) -> String {
    format!("GET {path} HTTP/1.1\r\nhost: {name}\r\nconnection: close\r\n\r\n")
}

async fn plain(door: SocketAddr, request: &str) -> String {
    let mut stream = TcpStream::connect(door).await.unwrap();
    stream.write_all(request.as_bytes()).await.unwrap();
    let mut answer = String::new();
    stream.read_to_string(&mut answer).await.unwrap();
    answer
}

async fn share(here: &str) -> Value {
    let body = json!({ "passphrase": "three brass bells" });
    reqwest::Client::new().post(format!("{here}/api/sharing")).json(&body).send().await.unwrap().json().await.unwrap()
}

fn door_of(shared: &Value) -> SocketAddr {
    let port = shared["addresses"][0].as_str().unwrap().rsplit(':').next().unwrap().parse().unwrap();
    (Ipv4Addr::LOCALHOST, port).into()
}

#[tokio::test]
async fn with_a_certificate_the_second_door_encrypts_and_shows_the_way_to_whoever_does_not() {
    let folder = tempfile::tempdir().unwrap();
    let tls = in_folder(folder.path());
    let known = certify(&tls, &["wayfinder.example", "*.many.example"]);
    let desk = Desk::open(&folder.path().join("data")).unwrap();
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let here = format!("http://{}", listener.local_addr().unwrap());
    let patience = Patience { head: Duration::from_millis(500), ..Patience::NETWORK };
    let setup = Setup { share_at: (Ipv4Addr::LOCALHOST, 0).into(), patience, tls: Some(tls.clone()), ..Setup::default() };
    tokio::spawn(serve(listener, desk, setup, std::future::pending()));

    assert_eq!(get(&format!("{here}/api/sharing")).await["encrypted"], true, "said before it is opened");
    let shared = share(&here).await;
    let door = door_of(&shared);
    assert_eq!(shared["addresses"], json!([format!("https://wayfinder.example:{}", door.port())]), "the name it is for");
    let name = format!("wayfinder.example:{}", door.port());
    let me = ask(door, &known, "wayfinder.example", &get_request("/api/me", &name)).await.unwrap();
    assert!(me.starts_with("HTTP/1.1 200") && me.contains("\"role\":\"nobody\""), "{me}");
    let body = json!({ "passphrase": "three brass bells" }).to_string();
    let sign_in = format!(
        "POST /api/sign-in HTTP/1.1\r\nhost: {name}\r\norigin: https://{name}\r\ncontent-type: application/json\r\n\
         content-length: {}\r\nconnection: close\r\n\r\n{body}",
        body.len()
    );
    let signed_in = ask(door, &known, "wayfinder.example", &sign_in).await.unwrap();
    let cookie = signed_in.lines().find(|line| line.starts_with("set-cookie:")).unwrap();
    assert!(signed_in.starts_with("HTTP/1.1 200") && cookie.contains("; Secure") && cookie.contains("HttpOnly"), "{cookie}");

    // Whoever does not encrypt learns nothing but the way.
    let moved = plain(door, &get_request("/join?code=ABCD", &name)).await;
    assert!(moved.starts_with("HTTP/1.1 307") && moved.contains(&format!("location: https://{name}/join?code=ABCD")), "{moved}");
    let post = plain(door, &sign_in).await;
    assert!(post.starts_with("HTTP/1.1 307") && !post.contains("set-cookie"), "{post}");
    // Neither silence nor half a handshake keeps a connection.
    for says in [&b""[..], &[22, 3, 1, 2, 0, 1]] {
        let mut silent = TcpStream::connect(door).await.unwrap();
        silent.write_all(says).await.unwrap();
        let ended = tokio::time::timeout(Duration::from_secs(60), silent.read_to_end(&mut Vec::new())).await;
        assert!(ended.is_ok(), "it was not closed");
    }

    // A renewed certificate is shown once the door is opened anew; the old one is not.
    let renewed = certify(&tls, &["wayfinder.example"]);
    reqwest::Client::new().delete(format!("{here}/api/sharing")).send().await.unwrap();
    let door = door_of(&share(&here).await);
    assert!(ask(door, &known, "wayfinder.example", &get_request("/api/me", &name)).await.is_err());
    assert!(ask(door, &renewed, "wayfinder.example", &get_request("/api/me", &name)).await.unwrap().starts_with("HTTP/1.1 200"));

    // One that went bad meanwhile opens nothing, and is said.
    fs::write(&tls.certificate, "gone").unwrap();
    reqwest::Client::new().delete(format!("{here}/api/sharing")).send().await.unwrap();
    let refused = share(&here).await;
    assert_eq!(refused["code"], "certificate", "{refused}");
    assert_eq!(get(&format!("{here}/api/sharing")).await["open"], false);
}

#[test]
fn a_certificate_that_is_of_no_use_is_told_at_the_start() {
    let folder = tempfile::tempdir().unwrap();
    let tls = in_folder(folder.path());
    let start = |with: &[&str]| {
        let data = folder.path().join("data");
        let out = Command::new(env!("CARGO_BIN_EXE_wayfinder"))
            .args(["serve", "--data", data.to_str().unwrap(), "--bind", "127.0.0.1:0"])
            .args(with)
            .output()
            .unwrap();
        assert!(!out.status.success());
        String::from_utf8(out.stderr).unwrap()
    };
    let both = ["--tls-cert", tls.certificate.to_str().unwrap(), "--tls-key", tls.key.to_str().unwrap()];
    assert!(start(&both[..2]).contains("--tls-key <FILE>"), "one without the other");
    assert!(start(&both).contains("cert.pem cannot be read"));
    certify(&tls, &["wayfinder.example"]);
    let key = fs::read(&tls.key).unwrap();
    fs::write(&tls.key, fs::read(&tls.certificate).unwrap()).unwrap();
    assert!(start(&both).contains("There is no private key in"));
    fs::write(&tls.certificate, &key).unwrap();
    assert!(start(&both).contains("There is no certificate in"));
    certify(&tls, &["wayfinder.example"]);
    fs::write(&tls.key, &key).unwrap();
    let said = start(&both);
    assert!(said.contains("cannot be used with this key"), "{said}");
}
