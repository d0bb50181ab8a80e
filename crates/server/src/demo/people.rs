//! Who works at the demo plant. Their accounts open it in demo mode only.

use ironpeel_store::{PersonDetails, PersonRole, Store};
use uuid::Uuid;

/// The password of each.
pub const PASSWORD: &str = "skerrow-demo";

/// An invented person.
#[derive(Debug, Clone, Copy)]
pub struct DemoPerson {
    pub name: &'static str,
    pub initials: &'static str,
    pub email: &'static str,
    pub role: PersonRole,
    /// What they are known by at a station of the floor.
    pub pin: &'static str,
}

pub const PEOPLE: [DemoPerson; 4] = [
    DemoPerson {
        name: "Runa Kell",
        initials: "RK",
        email: "technologist@skerrow.example",
        role: PersonRole::Technologist,
        pin: "4071",
    },
    DemoPerson {
        name: "Odd Marren",
        initials: "OM",
        email: "floor@skerrow.example",
        role: PersonRole::Floor,
        pin: "2580",
    },
    DemoPerson {
        name: "Ines Brack",
        initials: "IB",
        email: "visitor@skerrow.example",
        role: PersonRole::Visitor,
        pin: "9163",
    },
    DemoPerson {
        name: "Hale Tiden",
        initials: "HT",
        email: "admin@skerrow.example",
        role: PersonRole::Administrator,
        pin: "7394",
    },
];

/// Adds whoever of them has no account yet; the same under the same id at every plant.
pub async fn load(store: &Store) -> anyhow::Result<()> {
    for DemoPerson { name, initials, email, role, pin } in PEOPLE {
        if store.account(email).await?.is_some() {
            continue;
        }
        let id = Uuid::new_v5(&Uuid::NAMESPACE_URL, email.as_bytes());
        let details = PersonDetails {
            name: name.into(),
            initials: initials.into(),
            email: email.into(),
            active: true,
            demo: true,
            roles: vec![role],
        };
        store.set_person(id, &details).await?;
        store.set_password(id, &hashed(PASSWORD).await?, None).await?;
        store.set_pin(id, &hashed(pin).await?).await?;
    }
    Ok(())
}

async fn hashed(secret: &str) -> anyhow::Result<String> {
    let made = crate::password::hash(secret.into()).await;
    made.map_err(|_| anyhow::anyhow!("it cannot be hashed"))
}
