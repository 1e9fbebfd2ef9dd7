//! Encryption at the second door, for those who have a certificate.

use std::io;
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::sync::Arc;

use rustls::ServerConfig;
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use tokio_rustls::TlsAcceptor;
use webpki::EndEntityCert;

/// Where the certificate and its key are. They are read whenever the door is opened, so a renewed one is taken then.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Tls {
    /// The certificate, with those between it and the one that phones know after it, as PEM.
    pub certificate: PathBuf,
    /// Its private key, as PEM.
    pub key: PathBuf,
}

/// Why a certificate cannot be used.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum TlsError {
    /// The file cannot be read.
    #[error("{0} cannot be read: {1}.")]
    File(PathBuf, io::Error),
    /// There is none in the file.
    #[error("There is no certificate in {0}. It is a text file with BEGIN CERTIFICATE in it.")]
    NoCertificate(PathBuf),
    /// There is no key in the file.
    #[error("There is no private key in {0}. It is a text file with BEGIN PRIVATE KEY in it, without a passphrase.")]
    NoKey(PathBuf),
    /// They are of no use, or not of each other.
    #[error("The certificate {0} cannot be used with this key: {1}.")]
    Unfit(PathBuf, rustls::Error),
}

/// A certificate that is ready to be shown.
pub(crate) struct Shown {
    pub(crate) acceptor: TlsAcceptor,
    /// The names that it is for, without those that stand for many.
    names: Vec<String>,
}

fn read(path: &Path) -> Result<Vec<u8>, TlsError> {
    std::fs::read(path).map_err(|error| TlsError::File(path.to_owned(), error))
}

impl Tls {
    /// Reads both and holds them against each other.
    pub fn check(&self) -> Result<(), TlsError> {
        self.load().map(drop)
    }

    pub(crate) fn load(&self) -> Result<Shown, TlsError> {
        let no_certificate = || TlsError::NoCertificate(self.certificate.clone());
        let (certificate, key) = (read(&self.certificate)?, read(&self.key)?);
        let chain = CertificateDer::pem_slice_iter(&certificate).collect::<Result<Vec<_>, _>>().map_err(|_| no_certificate())?;
        let own = chain.first().cloned().ok_or_else(no_certificate)?;
        let key = PrivateKeyDer::from_pem_slice(&key).map_err(|_| TlsError::NoKey(self.key.clone()))?;
        let unfit = |error| TlsError::Unfit(self.certificate.clone(), error);
        let provider = Arc::new(rustls::crypto::ring::default_provider());
        let mut config = ServerConfig::builder_with_provider(provider)
            .with_safe_default_protocol_versions()
            .map_err(unfit)?
            .with_no_client_auth()
            .with_single_cert(chain, key)
            .map_err(unfit)?;
        config.alpn_protocols = vec![b"http/1.1".to_vec()];
        let read = EndEntityCert::try_from(&own).ok();
        let names = read.iter().flat_map(|own| own.valid_dns_names()).filter(|name| !name.starts_with('*'));
        let names = names.map(str::to_owned).collect();
        Ok(Shown { acceptor: TlsAcceptor::from(Arc::new(config)), names })
    }
}

impl Shown {
    /// The addresses that the certificate is for.
    pub(crate) fn addresses(&self, at: SocketAddr) -> Vec<String> {
        self.names.iter().map(|name| format!("https://{name}:{}", at.port())).collect()
    }
}
