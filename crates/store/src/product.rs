use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::chain::ScenarioFormula;
use ironpeel_core::method::Method;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::formula::{NewFormula, flour_ids};
use crate::method::{self, NewMethod};
use crate::revision::Signed;
use crate::schema::{flour, line, product};
use crate::store::{Store, write_once};

/// A formula and a method on a line, usually made from one flour.
#[derive(Debug, Clone, PartialEq, Eq, Queryable)]
pub struct Product {
    pub id: Uuid,
    /// Its word in addresses.
    pub slug: String,
    pub name: String,
    pub flour_id: Uuid,
    pub flour: String,
    pub formula_id: Uuid,
    pub method_id: Uuid,
    pub line_id: Uuid,
    pub line: String,
}

impl Store {
    /// Every product, by name.
    pub async fn products(&self) -> Result<Vec<Product>> {
        self.select_products(None).await
    }

    pub async fn product(&self, slug: &str) -> Result<Product> {
        let found = self.select_products(Some(slug)).await?;
        found.into_iter().next().ok_or(StoreError::NotFound("this product"))
    }

    async fn select_products(&self, slug: Option<&str>) -> Result<Vec<Product>> {
        let mut query = product::table
            .inner_join(flour::table)
            .inner_join(line::table)
            .select((
                product::id,
                product::slug,
                product::name,
                flour::id,
                flour::name,
                product::formula_id,
                product::method_id,
                line::id,
                line::name,
            ))
            .order(product::name)
            .into_boxed();
        if let Some(slug) = slug {
            query = query.filter(product::slug.eq(slug.to_owned()));
        }
        Ok(query.load(&mut self.connection().await?).await?)
    }

    pub async fn add_product(&self, new: &Product) -> Result<()> {
        insert(&mut *self.connection().await?, new).await.map_err(taken(new))
    }

    /// Records a product with the first states of its formula and its method, all or nothing.
    pub async fn make_product(
        &self,
        new: &Product,
        formula: &ScenarioFormula,
        made_by: &Method,
        signed: &Signed,
    ) -> Result<()> {
        let formula = NewFormula {
            formula_id: new.formula_id,
            name: new.name.clone(),
            revision_id: Uuid::now_v7(),
            number: 1,
            formula: formula.clone(),
            signed: signed.clone(),
        };
        let method = NewMethod {
            method_id: new.method_id,
            name: new.name.clone(),
            revision_id: Uuid::now_v7(),
            number: 1,
            method: made_by.clone(),
            signed: signed.clone(),
        };
        let mut connection = self.connection().await?;
        let flours = flour_ids(&mut connection, &formula.formula.formula).await?;
        drop(connection);
        write_once!(
            self,
            |connection| {
                crate::formula::record(connection, &formula, &flours).await?;
                method::record(connection, &method).await?;
                insert(connection, new).await?;
                true
            },
            taken(new)
        )
    }
}

async fn insert(connection: &mut AsyncPgConnection, new: &Product) -> diesel::QueryResult<()> {
    diesel::insert_into(product::table)
        .values((
            product::id.eq(new.id),
            product::slug.eq(&new.slug),
            product::name.eq(&new.name),
            product::flour_id.eq(new.flour_id),
            product::formula_id.eq(new.formula_id),
            product::method_id.eq(new.method_id),
            product::line_id.eq(new.line_id),
        ))
        .execute(connection)
        .await
        .map(drop)
}

fn taken(new: &Product) -> impl FnOnce(diesel::result::Error) -> StoreError {
    move |error| StoreError::or_conflict(error, || format!("{} is already on record", new.name))
}
