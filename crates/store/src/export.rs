//! Everything in open formats: each table as CSV and as JSON, with a manifest.

use std::path::{Path, PathBuf};
use std::pin::pin;

use chrono::{DateTime, Utc};
use futures_util::TryStreamExt;
use serde::Serialize;
use sha2::{Digest, Sha256};
use tokio::fs::File;
use tokio::io::{AsyncWriteExt, BufWriter};
use tokio_postgres::Client;

use crate::backup::{at, refuse_taken};
use crate::database::Database;
use crate::error::{Result, StoreError};

/// What opens the plant to whoever has it, or would with patience.
const SECRETS: [(&str, &str); 6] = [
    ("person", "password_hash"),
    ("person", "pin_hash"),
    ("person", "totp_secret"),
    ("api_key", "key_hash"),
    ("session", "token_hash"),
    ("setup_code", "code_hash"),
];

/// What was exported, and when.
#[derive(Debug, Serialize)]
pub struct Manifest {
    pub ironpeel: &'static str,
    pub exported_at: DateTime<Utc>,
    /// The newest step of the tables.
    pub migration: String,
    pub tables: Vec<ExportedTable>,
}

/// A table with its two files.
#[derive(Debug, Serialize)]
pub struct ExportedTable {
    pub name: String,
    pub rows: u64,
    pub columns: Vec<ExportedColumn>,
    /// Columns that are secret.
    pub left_out: Vec<String>,
    pub files: Vec<ExportedFile>,
}

/// A column with its type, as PostgreSQL calls it.
#[derive(Debug, Serialize)]
pub struct ExportedColumn {
    pub name: String,
    #[serde(rename = "type")]
    pub kind: String,
}

/// A file by its name in the folder.
#[derive(Debug, Serialize)]
pub struct ExportedFile {
    pub name: String,
    pub bytes: u64,
    pub sha256: String,
}

/// Writes every table into a new folder, as all stood at one moment; the manifest comes last.
pub async fn export(database: &Database, folder: &Path) -> Result<Manifest> {
    refuse_taken(folder)?;
    std::fs::create_dir_all(folder).map_err(|error| at(folder, &error))?;
    let (client, connection) = database.open().await.map_err(away)?;
    tokio::spawn(connection);
    client.batch_execute("BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY").await.map_err(away)?;
    let newest = "SELECT max(version) FROM __diesel_schema_migrations";
    let migration: Option<String> =
        client.query_one(newest, &[]).await.and_then(|row| row.try_get(0)).map_err(away)?;
    let mut tables = Vec::new();
    for name in names(&client).await? {
        tables.push(table(&client, &name, folder).await?);
    }
    let manifest = Manifest {
        ironpeel: env!("CARGO_PKG_VERSION"),
        exported_at: Utc::now(),
        migration: migration.unwrap_or_default(),
        tables,
    };
    let text =
        serde_json::to_vec_pretty(&manifest).map_err(|error| StoreError::Fault(error.into()))?;
    let path = folder.join("manifest.json");
    std::fs::write(&path, text).map_err(|error| at(&path, &error))?;
    Ok(manifest)
}

fn away(error: tokio_postgres::Error) -> StoreError {
    StoreError::Unavailable(error.into())
}

async fn names(client: &Client) -> Result<Vec<String>> {
    const NAMES: &str = "SELECT table_name::text FROM information_schema.tables \
        WHERE table_schema = 'public' AND table_type = 'BASE TABLE' \
            AND table_name <> '__diesel_schema_migrations' ORDER BY 1";
    let rows = client.query(NAMES, &[]).await.map_err(away)?;
    rows.iter().map(|row| row.try_get(0).map_err(away)).collect()
}

async fn columns(client: &Client, table: &str) -> Result<Vec<ExportedColumn>> {
    const COLUMNS: &str = "SELECT column_name::text, data_type::text FROM information_schema.columns \
        WHERE table_schema = 'public' AND table_name = $1 ORDER BY ordinal_position";
    let rows = client.query(COLUMNS, &[&table]).await.map_err(away)?;
    let column = |row: &tokio_postgres::Row| {
        Ok(ExportedColumn { name: row.try_get(0)?, kind: row.try_get(1)? })
    };
    rows.iter().map(column).collect::<std::result::Result<_, _>>().map_err(away)
}

async fn table(client: &Client, name: &str, folder: &Path) -> Result<ExportedTable> {
    let (secret, columns): (Vec<_>, Vec<_>) = columns(client, name)
        .await?
        .into_iter()
        .partition(|column| SECRETS.contains(&(name, &column.name)));
    let listed: Vec<String> = columns.iter().map(|column| format!("\"{}\"", column.name)).collect();
    let rows = format!("SELECT {} FROM \"{name}\" ORDER BY 1", listed.join(", "));

    let mut csv = NewFile::create(folder, format!("{name}.csv")).await?;
    let copy = format!("COPY ({rows}) TO STDOUT (FORMAT csv, HEADER)");
    let mut lines = pin!(client.copy_out(&copy).await.map_err(away)?);
    while let Some(line) = lines.try_next().await.map_err(away)? {
        csv.write(&line).await?;
    }

    let mut json = NewFile::create(folder, format!("{name}.json")).await?;
    let objects = format!("SELECT row_to_json(one)::text FROM ({rows}) AS one");
    let none: [&str; 0] = [];
    let mut objects = pin!(client.query_raw(&objects, none).await.map_err(away)?);
    let mut count = 0;
    while let Some(object) = objects.try_next().await.map_err(away)? {
        json.write(if count == 0 { b"[\n" } else { b",\n" }).await?;
        json.write(object.try_get::<_, &str>(0).map_err(away)?.as_bytes()).await?;
        count += 1;
    }
    json.write(if count == 0 { b"[]\n" } else { b"\n]\n" }).await?;

    let files = vec![csv.finish().await?, json.finish().await?];
    let left_out = secret.into_iter().map(|column| column.name).collect();
    Ok(ExportedTable { name: name.to_owned(), rows: count, columns, left_out, files })
}

/// A file that is being written.
struct NewFile {
    name: String,
    path: PathBuf,
    file: BufWriter<File>,
    bytes: u64,
    hash: Sha256,
}

impl NewFile {
    async fn create(folder: &Path, name: String) -> Result<Self> {
        let path = folder.join(&name);
        let file = File::create_new(&path).await.map_err(|error| at(&path, &error))?;
        Ok(Self { name, path, file: BufWriter::new(file), bytes: 0, hash: Sha256::new() })
    }

    async fn write(&mut self, part: &[u8]) -> Result<()> {
        self.bytes += part.len() as u64;
        self.hash.update(part);
        self.file.write_all(part).await.map_err(|error| at(&self.path, &error))
    }

    async fn finish(mut self) -> Result<ExportedFile> {
        self.file.flush().await.map_err(|error| at(&self.path, &error))?;
        let sha256 = hex::encode(self.hash.finalize());
        Ok(ExportedFile { name: self.name, bytes: self.bytes, sha256 })
    }
}
