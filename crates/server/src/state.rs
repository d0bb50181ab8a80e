use std::sync::Arc;

use ironpeel_core::flour::Limit;
use ironpeel_store::{
    FormulaRevision, LineRevision, Lot, MethodRevision, SpecificationRevision, Store, StoreError,
};
use moka::future::Cache;
use uuid::Uuid;

use crate::problem::Problem;

/// Revisions remembered of each kind.
const REMEMBERED: u64 = 20_000;

/// What every handler can reach.
#[derive(Debug, Clone)]
pub struct App {
    pub store: Store,
    pub revisions: Revisions,
}

impl App {
    pub fn new(store: Store) -> Self {
        Self { revisions: Revisions::new(store.clone()), store }
    }
}

/// Revisions by id. A revision never changes, so a server may remember it for as long as it has
/// room; no other server has to be told anything.
#[derive(Debug, Clone)]
pub struct Revisions {
    store: Store,
    lots: Cache<Uuid, Arc<Lot>>,
    specifications: Cache<Uuid, Arc<SpecificationRevision>>,
    formulas: Cache<Uuid, Arc<FormulaRevision>>,
    methods: Cache<Uuid, Arc<MethodRevision>>,
    lines: Cache<Uuid, Arc<LineRevision>>,
}

/// Everything a batch depends on, by revision.
#[derive(Debug, Clone)]
pub struct Documents {
    pub lot: Arc<Lot>,
    pub specification: Arc<SpecificationRevision>,
    pub formula: Arc<FormulaRevision>,
    pub method: Arc<MethodRevision>,
    pub line: Arc<LineRevision>,
}

impl Documents {
    pub fn limits(&self) -> &[Limit] {
        &self.specification.limits
    }
}

impl Revisions {
    fn new(store: Store) -> Self {
        Self {
            store,
            lots: Cache::new(REMEMBERED),
            specifications: Cache::new(REMEMBERED),
            formulas: Cache::new(REMEMBERED),
            methods: Cache::new(REMEMBERED),
            lines: Cache::new(REMEMBERED),
        }
    }

    pub async fn lot(&self, id: Uuid) -> Result<Arc<Lot>, Problem> {
        remembered(&self.lots, id, || self.store.lot_at(id)).await
    }

    pub async fn specification(&self, id: Uuid) -> Result<Arc<SpecificationRevision>, Problem> {
        remembered(&self.specifications, id, || self.store.specification(id)).await
    }

    pub async fn formula(&self, id: Uuid) -> Result<Arc<FormulaRevision>, Problem> {
        remembered(&self.formulas, id, || self.store.formula(id)).await
    }

    pub async fn method(&self, id: Uuid) -> Result<Arc<MethodRevision>, Problem> {
        remembered(&self.methods, id, || self.store.method(id)).await
    }

    pub async fn line(&self, id: Uuid) -> Result<Arc<LineRevision>, Problem> {
        remembered(&self.lines, id, || self.store.line(id)).await
    }
}

async fn remembered<T: Send + Sync + 'static, L: Future<Output = Result<T, StoreError>>>(
    cache: &Cache<Uuid, Arc<T>>,
    id: Uuid,
    load: impl FnOnce() -> L,
) -> Result<Arc<T>, Problem> {
    if let Some(known) = cache.get(&id).await {
        return Ok(known);
    }
    Box::pin(cache.try_get_with(id, async { load().await.map(Arc::new) }))
        .await
        .map_err(|error: Arc<StoreError>| Problem::from(&*error))
}
