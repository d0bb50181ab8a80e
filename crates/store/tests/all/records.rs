//! The store on a real database.

use diesel_async::async_connection_wrapper::AsyncConnectionWrapper;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use diesel_migrations::{FileBasedMigrations, MigrationHarness};
use ironpeel_core::flour::{Limit, Property};
use std::error::Error;

use crate::support::{flour, lot, signed};
use ironpeel_store::testing::{TestDatabase, cluster_over_tls};
use ironpeel_store::{
    AuditedAct, Author, ClientWrite, Database, Flour, FlourRevision, Imported, MillMapping,
    NewBlend, NewLotRevision, Store, StoreError, Trace, TraceKind, TraceMark, TraceSource, Word,
    migrate, migrate_down, migration_steps,
};
use uuid::Uuid;

#[tokio::test]
async fn a_lot_comes_back_as_it_was_recorded_and_is_stored_once() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    let new = lot(flour_id, "VR-1", 1, 13.0);
    store.add_lot_revision(&new).await.expect("recorded");
    store.add_lot_revision(&new).await.expect("sent again, stored once");

    let found = store.lot(new.lot_id).await.expect("on record");
    assert_eq!(found.code, "VR-1");
    assert_eq!(found.current.readings, new.readings);
    assert_eq!(found.current.stated, new.stated);
    assert_eq!(found.current.milled_on, new.milled_on);
    assert_eq!(store.lots(None, None, 10).await.expect("a list").len(), 1);
}

#[tokio::test]
async fn a_correction_is_a_new_revision_and_the_old_one_stays() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let first = lot(flour(store).await, "VR-1", 1, 13.0);
    store.add_lot_revision(&first).await.expect("recorded");
    let second = NewLotRevision {
        revision_id: Uuid::now_v7(),
        number: 2,
        signed: signed("the mill sent a second sheet"),
        readings: lot(first.flour_id, "", 2, 12.4).readings,
        ..first.clone()
    };
    store.add_lot_revision(&second).await.expect("recorded");

    let value = |lot: &ironpeel_store::Lot| lot.current.readings.0[0].value;
    assert_eq!(value(&store.lot(first.lot_id).await.expect("newest")), 12.4);
    assert_eq!(value(&store.lot_at(first.revision_id).await.expect("the old one")), 13.0);

    let late = NewLotRevision { revision_id: Uuid::now_v7(), ..second };
    let refused = store.add_lot_revision(&late).await.expect_err("somebody was there before");
    assert!(matches!(refused, StoreError::Conflict(message) if message.contains("somebody else")));
}

#[tokio::test]
async fn a_code_taken_twice_and_a_flour_that_is_not_there_store_nothing() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    store.add_lot_revision(&lot(flour_id, "VR-1", 1, 13.0)).await.expect("recorded");
    let again = store.add_lot_revision(&lot(flour_id, "VR-1", 1, 12.0)).await;
    assert!(
        matches!(again, Err(StoreError::Conflict(message)) if message.contains("already on record"))
    );
    assert!(store.add_lot_revision(&lot(Uuid::now_v7(), "VR-2", 1, 12.0)).await.is_err());
    assert_eq!(store.lots(None, None, 10).await.expect("a list").len(), 1);
}

#[tokio::test]
async fn pages_by_key_show_every_lot_once_newest_first() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    for number in 0..23 {
        let new = lot(flour_id, &format!("VR-{number:02}"), 1, 13.0);
        store.add_lot_revision(&new).await.expect("recorded");
    }
    let mut seen = Vec::new();
    let mut after = None;
    loop {
        let page = store.lots(Some(flour_id), after, 7).await.expect("a page");
        let Some(last) = page.last() else { break };
        after = Some((last.received_at, last.id));
        seen.extend(page.into_iter().map(|lot| lot.code));
    }
    let wanted: Vec<_> = (0..23).rev().map(|number| format!("VR-{number:02}")).collect();
    assert_eq!(seen, wanted);
}

#[tokio::test]
async fn lots_are_found_by_the_start_of_their_code_taken_literally() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    for code in ["VR-26-1", "vr-26-2", "V%-1", "BS-1"] {
        store.add_lot_revision(&lot(flour_id, code, 1, 13.0)).await.expect("recorded");
    }
    let codes = async |text: &str| -> Vec<String> {
        let found = store.find_lots(text, 8).await.expect("a list");
        found.into_iter().map(|(_, code, _)| code).collect()
    };
    assert_eq!(codes("vr-26").await, ["vr-26-2", "VR-26-1"]);
    assert_eq!(codes("V%").await, ["V%-1"]);
    assert_eq!(codes("").await.len(), 4);
}

#[tokio::test]
async fn specifications_are_revised_not_overwritten() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    let limits = |max| {
        vec![Limit {
            property: Property::Moisture,
            basis: None,
            min: None,
            target: None,
            max,
            must: true,
            method: None,
        }]
    };
    let ids = [Uuid::now_v7(), Uuid::now_v7()];
    for (number, (id, max)) in (1..).zip(ids.into_iter().zip([14.8, 14.5])) {
        store
            .add_specification(flour_id, id, number, &limits(Some(max)), &signed("drier"))
            .await
            .expect("recorded");
    }
    let current = store.current_specification(flour_id).await.expect("newest");
    assert_eq!((current.revision.number, current.limits[0].max), (2, Some(14.5)));
    let first = store.specification(ids[0]).await.expect("the old one");
    assert_eq!((first.revision.number, first.limits[0].max), (1, Some(14.8)));
    assert_eq!(
        store.current_specifications().await.expect("all")[&flour_id].limits,
        current.limits
    );
}

#[tokio::test]
async fn cut_connections_cost_nobody_an_error() {
    let database = TestDatabase::new().await;
    for _ in 0..3 {
        database.store.ping().await.expect("reached");
        database.cut_connections().await;
    }
    database.store.ping().await.expect("reached again");
}

#[tokio::test]
async fn a_database_that_is_not_there_is_told_as_such() {
    let nowhere = Database::new("postgres://nobody@127.0.0.1:1/nothing", None)
        .and_then(|nowhere| Store::new(nowhere, 1))
        .expect("not yet");
    assert!(matches!(nowhere.ping().await, Err(StoreError::Unavailable(_))));
}

async fn connected(database: &TestDatabase) -> AsyncPgConnection {
    let connecting = <AsyncPgConnection as diesel_async::AsyncConnection>::establish(&database.url);
    connecting.await.expect("connected")
}

#[tokio::test]
async fn a_question_the_database_cannot_answer_is_given_up_there_too() {
    let database = TestDatabase::new().await;
    let mut other = connected(&database).await;
    for sql in ["BEGIN", "LOCK TABLE lot IN ACCESS EXCLUSIVE MODE"] {
        diesel::sql_query(sql).execute(&mut other).await.expect(sql);
    }
    let refused = database.store.lots(None, None, 5).await;
    assert!(matches!(refused, Err(StoreError::Unavailable(_))), "it may be asked again");
    let waiting = "SELECT 1 FROM pg_locks WHERE NOT granted AND relation = 'lot'::regclass";
    let waiting = diesel::sql_query(waiting).execute(&mut other).await.expect("read");
    assert_eq!(waiting, 0, "nobody waits for it any more");
    diesel::sql_query("ROLLBACK").execute(&mut other).await.expect("unlocked");
    assert!(database.store.lots(None, None, 5).await.expect("a list").is_empty());
}

#[tokio::test]
async fn every_reference_is_followed_back_by_an_index() {
    #[derive(Debug, diesel::QueryableByName)]
    struct Bare {
        #[diesel(sql_type = diesel::sql_types::Text)]
        #[allow(dead_code, reason = "read where the test fails")]
        reference: String,
    }
    let database = TestDatabase::new().await;
    let bare: Vec<Bare> = diesel::sql_query(
        "SELECT conrelid::regclass || '.' || attname AS reference
         FROM pg_constraint
         JOIN pg_attribute ON attrelid = conrelid AND attnum = conkey[1]
         WHERE contype = 'f' AND NOT EXISTS (
             SELECT 1 FROM pg_index WHERE indrelid = conrelid AND indkey[0] = conkey[1])",
    )
    .load(&mut connected(&database).await)
    .await
    .expect("read");
    assert!(bare.is_empty(), "{bare:#?}");
}

#[tokio::test]
async fn servers_that_start_at_once_bring_one_empty_database_up_and_a_newer_one_is_refused() {
    let database = TestDatabase::new().await;
    let at = || database.database();
    while migration_steps(at()).await.expect("steps").iter().any(|step| step.applied) {
        migrate_down(at()).await.expect("a step back");
    }
    let starts: Vec<_> = (0..4).map(|_| tokio::spawn(migrate(at()))).collect();
    for started in starts {
        started.await.expect("no panic").expect("it comes up");
    }
    let steps = migration_steps(at()).await.expect("steps");
    assert!(steps.iter().all(|step| step.applied), "{steps:?}");
    let last = &steps.last().expect("some").name;
    assert_eq!(&migrate_down(at()).await.expect("a step back"), last);
    migrate(at()).await.expect("and up again");

    let newer = "INSERT INTO __diesel_schema_migrations (version) VALUES ('20991231000000')";
    database.run(newer).await;
    for refused in [
        migrate(at()).await.expect_err("newer"),
        migrate_down(at()).await.map(drop).expect_err("newer"),
    ] {
        assert!(refused.to_string().contains("a newer version of Ironpeel"), "{refused}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn migrations_go_both_ways() {
    use diesel::Connection;
    let database = TestDatabase::new().await;
    let url = database.url.clone();
    tokio::task::spawn_blocking(move || {
        let mut connection =
            AsyncConnectionWrapper::<AsyncPgConnection>::establish(&url).expect("connected");
        let migrations = FileBasedMigrations::find_migrations_directory().expect("a folder");
        connection.revert_all_migrations(migrations.clone()).expect("down");
        connection.run_pending_migrations(migrations).expect("up again");
    })
    .await
    .expect("no panic");
    flour(&database.store).await;
}

#[tokio::test]
async fn nothing_read_or_recorded_needs_two_connections_at_once() {
    let database = TestDatabase::new().await;
    let flour_id = flour(&database.store).await;
    let narrow = Store::new(database.database(), 1).expect("a pool needs no server yet");
    let new = lot(flour_id, "VR-1", 1, 13.0);
    narrow.add_lot_revision(&new).await.expect("recorded");
    assert_eq!(narrow.lot(new.lot_id).await.expect("read").code, "VR-1");
    assert_eq!(narrow.lot_at(new.revision_id).await.expect("read").code, "VR-1");
    assert_eq!(narrow.lots(Some(flour_id), None, 5).await.expect("read").len(), 1);
    assert_eq!(narrow.lots_onward(None, None, 5).await.expect("read").len(), 1);
    let again = [lot(flour_id, "VR-1", 1, 13.0), lot(flour_id, "VR-2", 1, 12.0)];
    let outcome = narrow.import_lots(&again).await.expect("recorded");
    assert_eq!(outcome, [Imported::Same, Imported::Added]);
    assert!(narrow.current_specification(flour_id).await.is_err());
    assert_eq!(narrow.dispositions(&[new.lot_id]).await.expect("read").len(), 0);
    assert_eq!(narrow.lot_before(new.lot_id).await.expect("read"), None);
    assert_eq!(narrow.reading_columns(None).await.expect("read").len(), 1);
}

#[tokio::test]
async fn many_lots_are_recorded_once_and_another_certificate_is_told() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    let lots: Vec<NewLotRevision> =
        (0..500).map(|at| lot(flour_id, &format!("M-{at}"), 1, 12.0)).collect();
    assert!(
        store.import_lots(&lots).await.expect("recorded").iter().all(|one| *one == Imported::Added)
    );
    let mut again = lots.clone();
    again[7].readings.0[0].value = 13.0;
    again.push(again[9].clone());
    let outcome = store.import_lots(&again).await.expect("read");
    assert_eq!(outcome[7], Imported::Differs);
    assert_eq!(outcome.iter().filter(|one| **one == Imported::Same).count(), 500);
    // Two rows of one lot in one file: the first holds, the second is the same or told.
    let twice = [lot(flour_id, "T-1", 1, 12.0), lot(flour_id, "T-1", 1, 12.5)];
    let outcome = store.import_lots(&twice).await.expect("recorded");
    assert_eq!(outcome, [Imported::Added, Imported::Differs]);
}

#[tokio::test]
async fn curves_marks_and_mappings_are_kept_in_their_order() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    let new = lot(flour_id, "VR-1", 1, 13.0);
    store.add_lot_revision(&new).await.expect("recorded");
    let trace = Trace {
        id: Uuid::now_v7(),
        lot_id: new.lot_id,
        kind: Word(TraceKind::Farinograph),
        source: Word(TraceSource::Imported),
        input: serde_json::json!({"t_s": [0.0, 0.1], "fu": [1.5, 2.5]}),
        made_by: "RK".into(),
        made_at: chrono::DateTime::from_timestamp(1_790_000_000, 0).expect("a time"),
    };
    for _ in 0..2 {
        store.add_trace(&trace).await.expect("recorded, once");
    }
    let nowhere = Trace { id: Uuid::now_v7(), lot_id: Uuid::now_v7(), ..trace.clone() };
    assert!(matches!(store.add_trace(&nowhere).await, Err(StoreError::NotFound(_))));
    for (at, minute) in (0..).zip([Some(5.0), Some(6.0), None]) {
        let mark = TraceMark {
            id: Uuid::now_v7(),
            trace_id: trace.id,
            mark: "development".into(),
            minute,
            made_by: "RK".into(),
            made_at: trace.made_at + chrono::Duration::seconds(at),
        };
        store.add_mark(&mark).await.expect("recorded");
    }
    assert_eq!(store.traces(new.lot_id).await.expect("read").len(), 1);
    let (found, marks) = store.trace(trace.id).await.expect("read");
    assert_eq!(found, trace);
    let minutes: Vec<_> = marks.iter().map(|mark| mark.minute).collect();
    assert_eq!(minutes, [Some(5.0), Some(6.0), None], "the last one holds");

    let headers = ["Lot".to_owned(), "Ash, % d.m.".to_owned()];
    assert_eq!(store.mapping_for(&headers).await.expect("read"), None);
    for mill in ["first", "second"] {
        let mapping = MillMapping {
            id: Uuid::now_v7(),
            mill: mill.into(),
            headers: headers.to_vec(),
            mapping: serde_json::json!({"columns": []}),
            made_by: "RK".into(),
            made_at: chrono::Utc::now(),
        };
        store.add_mapping(&mapping).await.expect("recorded");
    }
    let newest = store.mapping_for(&headers).await.expect("read").expect("remembered");
    assert_eq!(newest.mill, "second");
}

#[tokio::test]
async fn a_blend_is_made_at_once_and_writes_over_nothing() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let (blend, one, other) = (flour(store).await, flour(store).await, flour(store).await);
    assert_eq!(store.current_blend(one).await.expect("read"), None);
    let parts: Vec<NewLotRevision> =
        [(one, "A-1"), (other, "A-2")].map(|(of, code)| lot(of, code, 1, 13.0)).into();
    store.import_lots(&parts).await.expect("recorded");
    let made = Flour {
        id: Uuid::now_v7(),
        name: "Skerrow blend".into(),
        ..store.flour(one).await.expect("on record")
    };
    let signed = signed("harvest");
    let blended = async |flour: &Flour, number, code: &str, share: f64| {
        let shares = [share, 100.0 - share];
        let of: Vec<_> = parts
            .iter()
            .zip(shares)
            .map(|(part, share)| (part.lot_id, part.flour_id, share))
            .collect();
        let lot = lot(flour.id, code, 1, 12.5);
        let new = NewBlend {
            flour,
            revision_id: Uuid::now_v7(),
            number,
            parts: &of,
            lot: &lot,
            signed: &signed,
        };
        store.make_blend(&new).await.map(|()| lot.lot_id)
    };
    blended(&made, 1, "B-1", 40.0).await.expect("recorded");
    let second = blended(&made, 2, "B-2", 60.0).await.expect("recorded");
    assert!(matches!(blended(&made, 2, "B-3", 50.0).await, Err(StoreError::Conflict(_))));
    assert!(matches!(blended(&made, 4, "B-3", 50.0).await, Err(StoreError::Conflict(_))));
    let current = store.current_blend(made.id).await.expect("read").expect("a blend");
    assert_eq!((current.revision.number, current.parts[0].share_pct), (2, 60.0));
    let of = store.lot_parts(second).await.expect("read");
    assert_eq!(of.iter().map(|part| part.share_pct).collect::<Vec<_>>(), [60.0, 40.0]);

    // A lot on record takes no other parts, whichever blend names it.
    let known = store.lot(second).await.expect("on record");
    let lot = NewLotRevision {
        lot_id: second,
        revision_id: known.current.revision.id,
        ..lot(made.id, "B-2", 1, 12.5)
    };
    let more = [(parts[0].lot_id, one, 10.0), (parts[1].lot_id, other, 90.0)];
    let new = NewBlend {
        flour: &made,
        revision_id: Uuid::now_v7(),
        number: 3,
        parts: &more,
        lot: &lot,
        signed: &signed,
    };
    assert!(matches!(store.make_blend(&new).await, Err(StoreError::Conflict(_))));
    let of = store.lot_parts(second).await.expect("read");
    assert_eq!(of.iter().map(|part| part.share_pct).collect::<Vec<_>>(), [60.0, 40.0]);
    let current = store.current_blend(made.id).await.expect("read").expect("a blend");
    assert_eq!(current.revision.number, 2);

    let bought = Flour { name: "renamed".into(), ..store.flour(blend).await.expect("on record") };
    let refused = blended(&bought, 1, "B-9", 50.0).await;
    assert!(matches!(refused, Err(StoreError::Conflict(message)) if message.contains("is bought")));
    assert_ne!(store.flour(blend).await.expect("on record").name, "renamed", "all or nothing");
    let lots = store.lots(Some(blend), None, 5).await.expect("a list");
    assert!(lots.is_empty(), "all or nothing");
}

/// A client's write with a body of so many bytes alike.
fn sent(store: &Store, id: Uuid, body: u8) -> Store {
    let author = Author::called("RK", "here");
    let act = AuditedAct { action: "test".into(), record_id: Some(id), ..AuditedAct::default() };
    store.once(ClientWrite { id, body_hash: vec![body; 32], author, act })
}

#[tokio::test]
async fn the_same_write_is_stored_once_and_another_under_its_id_is_refused() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let first = lot(flour(store).await, "VR-1", 1, 13.0);
    let id = first.revision_id;
    sent(store, id, 1).add_lot_revision(&first).await.expect("recorded");
    sent(store, id, 1).add_lot_revision(&first).await.expect("the same again");
    let other = NewLotRevision { tonnes: Some(1.0), ..first.clone() };
    let refused = sent(store, id, 2).add_lot_revision(&other).await;
    assert!(
        matches!(refused, Err(StoreError::Conflict(message)) if message.contains("RK recorded it on")),
        "with who and when"
    );
    assert_eq!(store.lot(first.lot_id).await.expect("on record").current.tonnes, Some(24.6));
    assert!(sent(store, id, 1).was_written().await.expect("read"));
    assert!(!sent(store, id, 2).was_written().await.expect("read"));
    // Another lot under a revision's id makes no lot without revisions.
    let stray = NewLotRevision { revision_id: id, ..lot(first.flour_id, "VR-2", 1, 12.0) };
    assert!(sent(store, id, 3).add_lot_revision(&stray).await.is_err());
    assert_eq!(store.lots(None, None, 9).await.expect("a list").len(), 1);
    // What was refused leaves nothing behind: mended, it goes under the same id.
    let wrong = NewLotRevision { flour_id: Uuid::now_v7(), ..lot(first.flour_id, "VR-3", 1, 12.0) };
    assert!(sent(store, wrong.revision_id, 4).add_lot_revision(&wrong).await.is_err());
    let mended = NewLotRevision { flour_id: first.flour_id, ..wrong };
    sent(store, mended.revision_id, 5).add_lot_revision(&mended).await.expect("mended");
}

#[tokio::test]
async fn a_late_replay_undoes_nothing() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let day = |day| chrono::NaiveDate::from_ymd_opt(2026, 11, day);
    let first =
        NewLotRevision { delivered_on: day(10), ..lot(flour(store).await, "VR-1", 1, 13.0) };
    let second = NewLotRevision {
        revision_id: Uuid::now_v7(),
        number: 2,
        delivered_on: day(20),
        signed: signed("the date was wrong"),
        ..first.clone()
    };
    for new in [&first, &second, &first] {
        sent(store, new.revision_id, 1).add_lot_revision(new).await.expect("recorded or known");
    }
    let lots = store.lots(None, None, 5).await.expect("a list");
    assert_eq!(lots[0].received_at.date_naive(), day(20).expect("a day"));
}

#[tokio::test]
async fn revisions_count_on_by_one() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    let limits = [Limit {
        property: Property::Moisture,
        basis: None,
        min: None,
        target: None,
        max: Some(14.8),
        must: true,
        method: None,
    }];
    for number in [i32::MAX, 0, 2, -1] {
        let added =
            store.add_specification(flour_id, Uuid::now_v7(), number, &limits, &signed("so")).await;
        assert!(added.is_err(), "{number} is not the first");
    }
    store
        .add_specification(flour_id, Uuid::now_v7(), 1, &limits, &signed("so"))
        .await
        .expect("the first");
    let skipped =
        store.add_specification(flour_id, Uuid::now_v7(), 3, &limits, &signed("so")).await;
    assert!(
        matches!(skipped, Err(StoreError::Conflict(message)) if message.contains("the next one is 2")),
        "and says which is next"
    );
}

#[tokio::test]
async fn the_same_lots_from_two_sides_are_no_error() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    let lots = || -> Vec<NewLotRevision> {
        (0..40).map(|at| lot(flour_id, &format!("VR-{at}"), 1, 13.0)).collect()
    };
    let (one, other) = (lots(), lots());
    let (one, other) = tokio::join!(store.import_lots(&one), store.import_lots(&other));
    let added = [one.expect("recorded"), other.expect("recorded")]
        .concat()
        .iter()
        .filter(|outcome| **outcome == Imported::Added)
        .count();
    assert_eq!(added, 40);
}

#[tokio::test]
async fn what_a_flour_is_has_revisions() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let id = flour(store).await;
    let was = store.flour(id).await.expect("on record");
    let add = async |number, price_per_t| {
        let next = Flour { price_per_t, ..was.clone() };
        store.add_flour(&next, Uuid::now_v7(), number, &signed("new contract")).await
    };
    add(2, Some(610.0)).await.expect("recorded");
    for number in [0, 1, 2, 4, i32::MAX] {
        let refused = add(number, Some(700.0)).await;
        assert!(matches!(refused, Err(StoreError::Conflict(_))), "{number}: {refused:?}");
    }
    assert_eq!(store.flour(id).await.expect("on record").price_per_t, Some(610.0));
    let revisions = store.flour_revisions(id).await.expect("a list");
    let states: Vec<_> = revisions
        .iter()
        .map(|FlourRevision { revision, flour }| {
            (revision.number, revision.reason.as_str(), flour.price_per_t)
        })
        .collect();
    assert_eq!(states, [(2, "new contract", Some(610.0)), (1, "first state", Some(540.0))]);
    assert_eq!(revisions[1].flour, was);
}

#[tokio::test]
async fn lots_run_along_when_they_came_and_a_correction_moves_them() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flour_id = flour(store).await;
    let day = |day| chrono::NaiveDate::from_ymd_opt(2026, 11, day);
    let lots: Vec<NewLotRevision> = [3, 1, 2]
        .into_iter()
        .map(|at| NewLotRevision {
            delivered_on: day(10 + at),
            ..lot(flour_id, &format!("L-{at}"), 1, 12.0)
        })
        .collect();
    store.import_lots(&lots).await.expect("recorded");
    let codes = async || {
        let found = store.lots(Some(flour_id), None, 9).await.expect("read");
        found.into_iter().map(|lot| lot.code).collect::<Vec<_>>()
    };
    assert_eq!(codes().await, ["L-3", "L-2", "L-1"]);
    assert_eq!(store.lot_before(lots[0].lot_id).await.expect("read"), Some(lots[2].lot_id));
    let later = NewLotRevision {
        revision_id: Uuid::now_v7(),
        number: 2,
        delivered_on: day(20),
        signed: signed("the date was wrong"),
        ..lots[1].clone()
    };
    store.add_lot_revision(&later).await.expect("recorded");
    assert_eq!(codes().await, ["L-1", "L-3", "L-2"]);
    let onward = store.lots_onward(Some(flour_id), None, 9).await.expect("read");
    assert_eq!(onward.last().map(|lot| lot.code.as_str()), Some("L-1"));
}

#[tokio::test]
async fn over_tls_only_the_right_certificate_is_taken() {
    let (url, certificate, _cluster) = cluster_over_tls();
    let over_tls = Database::new(&url, Some(&certificate)).expect("an authority");
    Store::new(over_tls, 1).expect("a pool").ping().await.expect("it is the right one");
    let plain = Database::new(&url, None).expect("an address");
    Store::new(plain, 1).expect("a pool").ping().await.expect("nobody asked for TLS");

    let stranger = Database::new(&format!("{url}?sslmode=require"), None).expect("an address");
    let refused = migration_steps(stranger).await.expect_err("nobody here trusts it");
    let told = refused.source().expect("why").to_string();
    assert!(told.contains("certificate"), "{told}");
    assert!(Database::new(&url, Some("/no/such/file".as_ref())).is_err());
    assert!(Database::new("bread.example", None).is_err());
}
