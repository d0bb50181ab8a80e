//! What tests put on record.

use ironpeel_core::flour::{
    Hardness, IntendedUse, Property, Reading, Readings, Species, Treatment,
};
use ironpeel_store::{Flour, NewLotRevision, Signed, Stated, Store};
use uuid::Uuid;

pub fn signed(reason: &str) -> Signed {
    Signed { by: "RK".into(), reason: reason.into() }
}

pub async fn flour(store: &Store) -> Uuid {
    let id = Uuid::now_v7();
    let flour = Flour {
        id,
        mill: "Vennick Roller Mill".into(),
        name: format!("Tarn {id}"),
        species: Species::Wheat,
        note: String::new(),
        hardness: Some(Hardness::Hard),
        extraction_pct: Some(76.0),
        treatment: Treatment::None,
        intended_use: IntendedUse::PanBread,
        price_per_t: Some(540.0),
        allergens: None,
    };
    store.add_flour(&flour, Uuid::now_v7(), 1, &signed("first state")).await.expect("recorded");
    assert_eq!(store.flour(id).await.expect("on record"), flour);
    id
}

pub fn lot(flour_id: Uuid, code: &str, number: i32, protein: f64) -> NewLotRevision {
    let reading = Reading {
        property: Property::Protein,
        value: protein,
        basis: Some(ironpeel_core::flour::MoistureBasis::Fourteen),
        method: Some("ISO 16634-2".into()),
        censored: None,
    };
    NewLotRevision {
        lot_id: Uuid::now_v7(),
        flour_id,
        code: code.into(),
        revision_id: Uuid::now_v7(),
        number,
        milled_on: chrono::NaiveDate::from_ymd_opt(2026, 11, 5),
        delivered_on: None,
        tonnes: Some(24.6),
        readings: Readings(vec![reading]),
        stated: vec![Stated { value: format!("{protein}"), unit: "%".into() }],
        signed: signed("first state"),
    }
}
