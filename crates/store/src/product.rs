use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{flour, line, product};
use crate::store::Store;

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
            .execute(&mut self.connection().await?)
            .await
            .map(drop)
            .map_err(|error| {
                StoreError::or_conflict(error, || format!("{} is already on record", new.name))
            })
    }
}
