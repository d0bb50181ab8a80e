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
}

pub const PEOPLE: [DemoPerson; 4] = [
    DemoPerson {
        name: "Runa Kell",
        initials: "RK",
        email: "technologist@skerrow.example",
        role: PersonRole::Technologist,
    },
    DemoPerson {
        name: "Odd Marren",
        initials: "OM",
        email: "floor@skerrow.example",
        role: PersonRole::Floor,
    },
    DemoPerson {
        name: "Ines Brack",
        initials: "IB",
        email: "visitor@skerrow.example",
        role: PersonRole::Visitor,
    },
    DemoPerson {
        name: "Hale Tiden",
        initials: "HT",
        email: "admin@skerrow.example",
        role: PersonRole::Administrator,
    },
];

/// Adds whoever of them has no account yet; the same under the same id at every plant.
pub async fn load(store: &Store) -> anyhow::Result<()> {
    let mut hash = None;
    for DemoPerson { name, initials, email, role } in PEOPLE {
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
        if hash.is_none() {
            let made = crate::password::hash(PASSWORD.into()).await;
            hash = Some(made.map_err(|_| anyhow::anyhow!("the password cannot be hashed"))?);
        }
        store.set_password(id, hash.as_deref().unwrap_or_default(), None).await?;
    }
    Ok(())
}
