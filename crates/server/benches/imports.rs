//! Taking in lots against PostgreSQL's own `COPY` of the same rows, and lists at a thousand lots
//! against a million, in one run.

use std::io::Write;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

use ironpeel_core::flour::{
    Hardness, IntendedUse, MoistureBasis, Property, Reading, Readings, Species, Treatment,
};
use ironpeel_store::testing::TestDatabase;
use ironpeel_store::{Flour, NewLotRevision, Signed, Stated, Store};
use uuid::Uuid;

const LOTS: usize = 20_000;
const AT_ONCE: usize = 1_000;
const MANY: usize = 1_000_000;
const FEW: usize = 1_000;
const ROUNDS: usize = 300;

#[tokio::main]
async fn main() {
    import_against_copy().await;
    lists_at_scale().await;
}

async fn flour(store: &Store, name: &str) -> Uuid {
    let id = Uuid::now_v7();
    let flour = Flour {
        id,
        mill: "Vennick Roller Mill".into(),
        name: name.into(),
        species: Species::Wheat,
        note: String::new(),
        price_per_t: None,
        allergens: None,
        hardness: Some(Hardness::Hard),
        extraction_pct: None,
        treatment: Treatment::None,
        intended_use: IntendedUse::General,
    };
    store
        .add_flour(&flour, Uuid::now_v7(), 1, &Signed { by: "bench".into(), reason: String::new() })
        .await
        .expect("recorded");
    id
}

fn lot(flour_id: Uuid, number: usize) -> NewLotRevision {
    let fourteen = Some(MoistureBasis::Fourteen);
    let readings: Vec<Reading> = [
        (Property::Moisture, 14.0, None),
        (Property::Protein, 12.9, fourteen),
        (Property::Ash, 0.61, Some(MoistureBasis::DryMatter)),
        (Property::FallingNumber, 340.0, None),
        (Property::DamagedStarch, 8.2, Some(MoistureBasis::AsIs)),
        (Property::Absorption, 62.1, fourteen),
        (Property::Stability, 11.4, None),
        (Property::W, 305.0, None),
    ]
    .into_iter()
    .map(|(property, value, basis)| Reading {
        property,
        value: value + (number % 7) as f64 / 100.0,
        basis,
        method: Some("ISO".into()),
        censored: None,
    })
    .collect();
    let milled_on = chrono::NaiveDate::from_num_days_from_ce_opt(
        730_000 + i32::try_from(number % 9_000).unwrap_or(0),
    );
    NewLotRevision {
        lot_id: Uuid::now_v7(),
        flour_id,
        code: format!("B-{number:07}"),
        revision_id: Uuid::now_v7(),
        number: 1,
        milled_on,
        delivered_on: milled_on,
        tonnes: Some(24.6),
        stated: readings
            .iter()
            .map(|reading| Stated { value: reading.value.to_string(), unit: "%".into() })
            .collect(),
        readings: Readings(readings),
        signed: Signed { by: "bench".into(), reason: "imported".into() },
    }
}

async fn import_against_copy() {
    let database = TestDatabase::new().await;
    let flour_id = flour(&database.store, "Tarn Strong").await;
    // Half each way in turn, so that whatever else the machine does weighs on both.
    let (mut imported, mut copied) = (Duration::ZERO, Duration::ZERO);
    for part in 0..LOTS / AT_ONCE {
        let lots: Vec<NewLotRevision> =
            (0..AT_ONCE).map(|at| lot(flour_id, 2 * part * AT_ONCE + at)).collect();
        let start = Instant::now();
        database.store.import_lots(&lots).await.expect("recorded");
        imported += start.elapsed();
        let lots: Vec<NewLotRevision> =
            (0..AT_ONCE).map(|at| lot(flour_id, (2 * part + 1) * AT_ONCE + at)).collect();
        let script = copy_of(&lots);
        let start = Instant::now();
        psql(&database.url, &script);
        copied += start.elapsed();
    }
    let rate = |taken: Duration| LOTS as f64 / taken.as_secs_f64();
    println!(
        "{LOTS} lots of 8 readings each way: import {:.0} lots/s, COPY {:.0} lots/s, ratio {:.2} (wanted at least 0.33)",
        rate(imported),
        rate(copied),
        rate(imported) / rate(copied)
    );
}

/// The same rows as `COPY` takes them.
fn copy_of(lots: &[NewLotRevision]) -> String {
    let none = "\\N";
    let lot_rows = lots.iter().map(|lot| {
        format!("{}\t{}\t{}\t{}\n", lot.lot_id, lot.flour_id, lot.code, lot.received_at())
    });
    let revision_rows = lots.iter().map(|lot| {
        let date = lot.milled_on.map(|date| date.to_string()).unwrap_or_default();
        let (id, lot_id) = (lot.revision_id, lot.lot_id);
        format!("{id}\t{lot_id}\t1\tbench\timported\t{date}\t{date}\t24.6\n")
    });
    let reading_rows = lots.iter().flat_map(|lot| {
        lot.readings.0.iter().enumerate().map(move |(at, reading)| {
            let Reading { property, value, basis, .. } = reading;
            let basis = basis.map_or(none, MoistureBasis::key);
            let (id, key) = (lot.revision_id, property.key());
            format!("{id}\t{at}\t{key}\t{value}\t{basis}\tISO\t{value}\t%\t{none}\n")
        })
    });
    format!(
        "BEGIN;\nCOPY lot (id, flour_id, code, received_at) FROM STDIN;\n{}\\.\n\
         COPY lot_revision (id, lot_id, number, made_by, reason, milled_on, delivered_on, tonnes) \
         FROM STDIN;\n{}\\.\n\
         COPY reading (lot_revision_id, position, property, value, basis, method, stated_value, \
         stated_unit, censored) FROM STDIN;\n{}\\.\nCOMMIT;\n",
        lot_rows.collect::<String>(),
        revision_rows.collect::<String>(),
        reading_rows.collect::<String>()
    )
}

fn psql(url: &str, script: &str) {
    let mut child = Command::new("psql")
        .args([url, "--quiet", "-v", "ON_ERROR_STOP=1"])
        .stdin(Stdio::piped())
        .spawn()
        .expect("PostgreSQL's client is installed");
    child.stdin.take().expect("piped").write_all(script.as_bytes()).expect("taken");
    assert!(child.wait().expect("it ends").success());
}

/// Rows made inside the database: the lists only read them.
const FILL: &str = "
INSERT INTO lot (id, flour_id, code, received_at)
    SELECT gen_random_uuid(), '{flour}', 'M-' || n, timestamptz '2000-01-01' + n * interval '7 minutes'
    FROM generate_series(1, {lots}) AS n;
INSERT INTO lot_revision (id, lot_id, number, made_by, reason)
    SELECT gen_random_uuid(), id, 1, 'bench', '' FROM lot WHERE flour_id = '{flour}';
INSERT INTO reading (lot_revision_id, position, property, value, basis, stated_value, stated_unit)
    SELECT lot_revision.id, property.at, property.name, 8.2, property.basis, '8.2', '%'
    FROM lot_revision JOIN lot ON lot.id = lot_revision.lot_id AND lot.flour_id = '{flour}',
         (VALUES (0, 'moisture', NULL), (1, 'damaged_starch', 'as_is')) AS property (at, name, basis);
ANALYZE;
";

async fn lists_at_scale() {
    let mut stores = Vec::new();
    for lots in [FEW, MANY] {
        let database = TestDatabase::new().await;
        let flour_id = flour(&database.store, "Tarn Strong").await;
        let fill =
            FILL.replace("{flour}", &flour_id.to_string()).replace("{lots}", &lots.to_string());
        psql(&database.url, &fill);
        stores.push((database, flour_id));
    }
    for (name, most, of_flour) in [("lot list", 51, false), ("drift chart", 200, true)] {
        let mut times = [Vec::new(), Vec::new()];
        for _ in 0..ROUNDS {
            for ((database, flour_id), times) in stores.iter().zip(&mut times) {
                let start = Instant::now();
                let found = database.store.lots(of_flour.then_some(*flour_id), None, most).await;
                assert_eq!(found.expect("read").len(), most as usize);
                times.push(start.elapsed());
            }
        }
        let [few, many] = times.map(|mut times| {
            times.sort_unstable();
            times[ROUNDS / 2]
        });
        println!(
            "{name}: median {few:?} at {FEW} lots, {many:?} at {MANY}, ratio {:.2} (wanted under 1.5)",
            many.as_secs_f64() / few.as_secs_f64()
        );
    }
    let (database, flour_id) = stores.last().expect("two were filled");
    deep_pages(&database.store, *flour_id).await;
}

/// The first page of a list against one a thousand pages further.
async fn deep_pages(store: &Store, flour_id: Uuid) {
    const PAGE: i64 = 50;
    const DEEP: i64 = 1000;
    let far = store.lots(Some(flour_id), None, PAGE * (DEEP - 1)).await.expect("read");
    let last = far.last().map(|lot| (lot.received_at, lot.id));
    assert!(last.is_some());
    let mut times = [Vec::new(), Vec::new()];
    for _ in 0..ROUNDS {
        for (key, times) in [None, last].into_iter().zip(&mut times) {
            let start = Instant::now();
            let found = store.lots(None, key, PAGE).await;
            assert_eq!(found.expect("read").len(), PAGE as usize);
            times.push(start.elapsed());
        }
    }
    let [first, deep] = times.map(|mut times| {
        times.sort_unstable();
        times[ROUNDS / 2]
    });
    println!(
        "page 1: median {first:?}, page {DEEP}: {deep:?}, ratio {:.2} (wanted under 1.5)",
        deep.as_secs_f64() / first.as_secs_f64()
    );
}
