use std::hash::Hash;
use std::sync::Arc;
use std::time::Duration;

use chrono::{NaiveDate, Utc};
use chrono_tz::Tz;
use ironpeel_core::dough::FormulaDraft;
use ironpeel_core::flour::Limit;
use ironpeel_core::plant::PlantParameters;
use ironpeel_core::units::Estimate;
use ironpeel_store::{
    Flour, FormulaRevision, LearnedRevision, LineRevision, Lot, MethodRevision, ParametersRevision,
    Plant, SpecificationRevision, Store, StoreError,
};
use moka::future::Cache;
use uuid::Uuid;

use crate::config::Config;
use crate::live::told::Live;
use crate::planned_batch::PlannedBatch;
use crate::problem::Problem;
use crate::revision_refs::RevisionRefs;

/// How long a server may go by what another changed meanwhile.
const SOON: Duration = Duration::from_secs(3);
/// Revisions remembered of each kind.
const REMEMBERED: u64 = 20_000;

/// What every handler can reach.
#[derive(Debug, Clone)]
pub struct App {
    pub store: Store,
    pub revisions: Revisions,
    pub config: Arc<Config>,
    pub live: Live,
}

impl App {
    pub fn new(store: Store, config: Config) -> Self {
        let revisions = Revisions::new(store.clone());
        Self { store, revisions, config: Arc::new(config), live: Live::default() }
    }

    /// What is asked of a flour now; none where nobody asked anything yet.
    pub async fn specification_of(
        &self,
        flour_id: Uuid,
    ) -> Result<Option<SpecificationRevision>, Problem> {
        match self.store.current_specification(flour_id).await {
            Ok(specification) => Ok(Some(specification)),
            Err(StoreError::NotFound(_)) => Ok(None),
            Err(error) => Err(error.into()),
        }
    }

    /// The clock on the plant's wall.
    pub async fn clock(&self) -> Result<Tz, Problem> {
        let plant = self.revisions.plant().await?;
        plant.settings.time_zone.parse().map_err(Problem::fault)
    }

    /// What day it is at the plant.
    pub async fn today(&self) -> Result<NaiveDate, Problem> {
        Ok(Utc::now().with_timezone(&self.clock().await?).date_naive())
    }

    /// The plant's numbers as they are now.
    pub async fn parameters(&self) -> Result<PlantParameters, Problem> {
        let own =
            self.store.current_parameters().await?.map(|own| own.parameters).unwrap_or_default();
        let plant = self.revisions.plant().await?;
        Ok(PlantParameters { library: own.library.priced(&plant.prices), ..own })
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
    parameters: Cache<Uuid, Arc<ParametersRevision>>,
    learned: Cache<Uuid, Arc<LearnedRevision>>,
    batches: Cache<Uuid, Arc<PlannedBatch>>,
    /// What a flour is and the plant's settings can change: they are looked up again soon.
    flours: Cache<Uuid, Arc<Flour>>,
    plant: Cache<(), Arc<Plant>>,
}

/// Everything a batch depends on, by revision.
#[derive(Debug, Clone)]
pub struct Documents {
    pub flour: Specified,
    /// Lots of the formula's other flours.
    pub others: Vec<Specified>,
    pub formula: Arc<FormulaRevision>,
    pub method: Arc<MethodRevision>,
    pub line: Arc<LineRevision>,
    /// The plant's own numbers where it has some, and its prices.
    parameters: PlantParameters,
    /// What batches taught of its water, where somebody took it over.
    pub water_correction: Option<Arc<LearnedRevision>>,
}

/// A lot and what is asked of it.
#[derive(Debug, Clone)]
pub struct Specified {
    pub lot: Arc<Lot>,
    /// None where nothing is asked of it.
    pub specification: Option<Arc<SpecificationRevision>>,
}

impl Specified {
    /// What is asked of it; nothing where it has no specification.
    pub fn limits(&self) -> &[Limit] {
        self.specification.as_ref().map_or(&[], |one| &one.limits)
    }

    pub fn specification_number(&self) -> Option<i32> {
        self.specification.as_ref().map(|one| one.revision.number)
    }
}

impl Documents {
    /// The water correction with its band, points.
    pub fn water_correction(&self) -> Option<Estimate> {
        let learned = self.water_correction.as_ref()?;
        Some(Estimate::nine_tenths(learned.value?, learned.sd.unwrap_or_default()))
    }

    pub fn parameters(&self) -> &PlantParameters {
        &self.parameters
    }

    /// Whether there is a lot of every flour of a draft, under the name it has there.
    pub fn have_flours_of(&self, draft: &FormulaDraft) -> bool {
        let names: Vec<&str> = std::iter::once(&self.flour)
            .chain(&self.others)
            .map(|one| &*one.lot.flour.name)
            .collect();
        draft.flours.iter().all(|flour| names.contains(&&*flour.name))
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
            parameters: Cache::new(REMEMBERED),
            learned: Cache::new(REMEMBERED),
            batches: Cache::new(REMEMBERED),
            flours: Cache::builder().max_capacity(REMEMBERED).time_to_live(SOON).build(),
            plant: Cache::builder().max_capacity(1).time_to_live(SOON).build(),
        }
    }

    /// Every document of a dough.
    pub async fn documents(&self, revision_refs: &RevisionRefs) -> Result<Documents, Problem> {
        let specified = async |lot, specification: Option<Uuid>| {
            let specification = match specification {
                Some(id) => Some(self.specification(id).await?),
                None => None,
            };
            Ok::<_, Problem>(Specified { lot: self.lot(lot).await?, specification })
        };
        let mut others = Vec::with_capacity(revision_refs.other_lots.len());
        for other in &revision_refs.other_lots {
            others.push(specified(other.lot_revision_id, other.specification_revision_id).await?);
        }
        let own = self.own_parameters(revision_refs.parameters_revision_id).await?;
        let plant = self.plant().await?;
        let parameters = PlantParameters { library: own.library.priced(&plant.prices), ..own };
        Ok(Documents {
            flour: specified(
                revision_refs.lot_revision_id,
                revision_refs.specification_revision_id,
            )
            .await?,
            others,
            formula: self.formula(revision_refs.formula_revision_id).await?,
            method: self.method(revision_refs.method_revision_id).await?,
            line: self.line(revision_refs.line_revision_id).await?,
            parameters,
            water_correction: match revision_refs.water_correction_id {
                Some(id) => Some(self.learned(id).await?),
                None => None,
            },
        })
    }

    /// A lot in the state of one revision; its flour is as it is now.
    pub async fn lot(&self, id: Uuid) -> Result<Arc<Lot>, Problem> {
        let lot = get_or_load(&self.lots, id, || self.store.lot_at(id)).await?;
        let flour_id = lot.flour.id;
        let flour = get_or_load(&self.flours, flour_id, || self.store.flour(flour_id)).await?;
        if *flour == lot.flour {
            return Ok(lot);
        }
        let now = Arc::new(Lot { flour: (*flour).clone(), ..(*lot).clone() });
        self.lots.insert(id, now.clone()).await;
        Ok(now)
    }

    /// Lets go of everything another server may have changed.
    pub fn forget_changeable(&self) {
        self.flours.invalidate_all();
        self.plant.invalidate_all();
    }

    /// Lets go of what was remembered of a flour that was changed here.
    pub async fn forget_flour(&self, id: Uuid) {
        self.flours.invalidate(&id).await;
    }

    /// Looks the plant's settings up anew.
    pub async fn forget_plant(&self) {
        self.plant.invalidate(&()).await;
    }

    pub async fn plant(&self) -> Result<Arc<Plant>, Problem> {
        get_or_load(&self.plant, (), || self.store.plant()).await
    }

    pub async fn specification(&self, id: Uuid) -> Result<Arc<SpecificationRevision>, Problem> {
        get_or_load(&self.specifications, id, || self.store.specification(id)).await
    }

    pub async fn formula(&self, id: Uuid) -> Result<Arc<FormulaRevision>, Problem> {
        get_or_load(&self.formulas, id, || self.store.formula(id)).await
    }

    pub async fn method(&self, id: Uuid) -> Result<Arc<MethodRevision>, Problem> {
        get_or_load(&self.methods, id, || self.store.method(id)).await
    }

    /// What a batch was planned as: it never changes.
    pub async fn batch(&self, id: Uuid) -> Result<Arc<PlannedBatch>, Problem> {
        if let Some(known) = self.batches.get(&id).await {
            return Ok(known);
        }
        let (batch, slug, _) = self.store.batch(id).await?;
        let method = self.method(batch.method_revision_id).await?;
        let line = self.line(batch.line_revision_id).await?;
        let own = self.own_parameters(batch.parameters_revision_id).await?;
        let planned = PlannedBatch::of(&batch, slug, &method, &line, &own.coefficients);
        let planned = Arc::new(planned);
        self.batches.insert(id, planned.clone()).await;
        Ok(planned)
    }

    /// The plant's own parameters of a revision; the house's where there is none.
    async fn own_parameters(&self, id: Option<Uuid>) -> Result<PlantParameters, Problem> {
        let Some(id) = id else { return Ok(PlantParameters::default()) };
        let own = get_or_load(&self.parameters, id, || self.store.parameters(id)).await?;
        Ok(own.parameters.clone())
    }

    pub async fn learned(&self, id: Uuid) -> Result<Arc<LearnedRevision>, Problem> {
        get_or_load(&self.learned, id, || self.store.learned_revision(id)).await
    }

    pub async fn line(&self, id: Uuid) -> Result<Arc<LineRevision>, Problem> {
        get_or_load(&self.lines, id, || self.store.line(id)).await
    }
}

async fn get_or_load<K, T: Send + Sync + 'static, L: Future<Output = Result<T, StoreError>>>(
    cache: &Cache<K, Arc<T>>,
    id: K,
    load: impl FnOnce() -> L,
) -> Result<Arc<T>, Problem>
where
    K: Hash + Eq + Send + Sync + 'static,
{
    if let Some(known) = cache.get(&id).await {
        return Ok(known);
    }
    Box::pin(cache.try_get_with(id, async { load().await.map(Arc::new) }))
        .await
        .map_err(|error: Arc<StoreError>| Problem::from(&*error))
}
