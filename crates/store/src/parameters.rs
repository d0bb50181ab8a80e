//! The plant's own parameters: one document, revised.

use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::plant::{OwnParameters, PlantParameters};
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, add_revision, revision_columns, signed_columns};
use crate::schema::plant_parameters_revision;
use crate::store::{Store, write_once};

/// One state of the plant's own parameters.
#[derive(Debug, Clone, PartialEq)]
pub struct ParametersRevision {
    pub revision: Revision,
    pub own: OwnParameters,
    /// The same over the house's, as computations take them.
    pub parameters: PlantParameters,
}

impl Store {
    /// The newest state; none where the plant has only the house's.
    pub async fn current_parameters(&self) -> Result<Option<ParametersRevision>> {
        let newest: Option<(Revision, Value)> = plant_parameters_revision::table
            .order(plant_parameters_revision::number.desc())
            .select((
                revision_columns!(plant_parameters_revision),
                plant_parameters_revision::parameters,
            ))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        newest.map(read).transpose()
    }

    pub async fn parameters(&self, revision_id: Uuid) -> Result<ParametersRevision> {
        let found: Option<(Revision, Value)> = plant_parameters_revision::table
            .find(revision_id)
            .select((
                revision_columns!(plant_parameters_revision),
                plant_parameters_revision::parameters,
            ))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        read(found.ok_or(StoreError::NotFound("this revision of the plant's numbers"))?)
    }

    /// Every revision, newest first.
    pub async fn parameters_revisions(&self) -> Result<Vec<Revision>> {
        Ok(plant_parameters_revision::table
            .order(plant_parameters_revision::number.desc())
            .select(revision_columns!(plant_parameters_revision))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Records the revision after `number − 1`. Sent twice, it is stored once.
    pub async fn add_parameters(
        &self,
        id: Uuid,
        number: i32,
        own: &OwnParameters,
        signed: &Signed,
    ) -> Result<()> {
        let parameters =
            serde_json::to_value(own).map_err(|error| StoreError::Fault(error.into()))?;
        write_once!(
            self,
            |connection| {
                let row = (
                    signed_columns!(plant_parameters_revision, id, number, signed),
                    plant_parameters_revision::parameters.eq(&parameters),
                );
                let name = "the plant's own parameters";
                add_revision!(connection, plant_parameters_revision, [], id, number, name, row, {})
            },
            |error| StoreError::or_overtaken(error, "the plant's own parameters")
        )
    }
}

fn read((revision, parameters): (Revision, Value)) -> Result<ParametersRevision> {
    let own: OwnParameters =
        serde_json::from_value(parameters).map_err(|error| StoreError::Fault(error.into()))?;
    Ok(ParametersRevision { revision, parameters: own.clone().into(), own })
}
