//! What the stages say together: stations, what is missing, cautions, figures.

use super::{Caution, MapPlan, Missing, Station, StationState};
use crate::figure::Figure;
use crate::job::Job;
use crate::shelf::UNNAMED;
use crate::shop::Shop;
use crate::stage::part::PartFacts;
use crate::stage::{Stage, map, part};
use crate::stores::{Take, TakenWhen, filler_of};

/// What the stages say, in the order of the work.
#[derive(Default)]
pub(super) struct Folded {
    pub stations: Vec<StationState>,
    pub missing: Vec<Missing>,
    pub cautions: Vec<Caution>,
    pub figures: Vec<Figure>,
}

impl Folded {
    /// Lays a stage beside those before it; what is planned there is given back.
    pub fn take<T>(&mut self, station: Station, stage: Stage<T>) -> T {
        self.stations.push(StationState { station, amount: stage.amount });
        self.missing.extend(stage.missing);
        self.cautions.extend(stage.cautions);
        self.figures.extend(stage.figures);
        stage.plan
    }

    /// What is to be known of it beside what its stages say, what somebody answered for before everything else.
    pub fn also(&mut self, job: &Job, facts: &PartFacts, map: &MapPlan, takes: &[Take], shop: &Shop) {
        let round = job.round();
        let answered = part::answered_for(round, facts);
        self.cautions.splice(0..0, answered.map(|sentence| Caution::new(Station::Part, sentence)));
        let clashes = map::clash_sentences(map);
        self.cautions.extend(clashes.map(|sentence| Caution::new(Station::Cracks, sentence)));
        self.cautions.extend(damaged(job));
        if !round.repaired() {
            self.cautions.extend(not_here(takes, shop));
        }
    }
}

/// What the stores have too little of, at the station that asks for it; and what lies there without a name.
fn not_here<'a>(takes: &'a [Take], shop: &'a Shop) -> impl Iterator<Item = Caution> + 'a {
    let short = takes.iter().filter(|take| take.short).map(|take| {
        let station = match take.when {
            TakenWhen::Done => Station::Prep,
            TakenWhen::Lit => Station::Heat,
            TakenWhen::Kept => Station::Cooling,
        };
        let sentence = format!("{}: {}, it takes {}.", take.words, take.here_words, take.amount_words);
        Caution::new(station, sentence)
    });
    let nameless = shop.stores.iter().any(|item| item.kind == UNNAMED && item.there());
    let on_the_shelf = |take: &Take| shop.stores.iter().any(|item| item.kind == take.kind && item.there());
    let wanted = takes.iter().filter(|take| filler_of(&take.kind).is_some());
    let tempted = nameless && wanted.filter(|take| !on_the_shelf(take)).count() > 0;
    let sentence = "A bundle without a name lies in the stores: find out what it is before it is used.";
    short.chain(tempted.then(|| Caution::new(Station::Prep, sentence)))
}

/// What is in the job and cannot be read.
fn damaged(job: &Job) -> Option<Caution> {
    let places: Vec<String> = job.damaged.iter().take(8).map(|it| it.revision.to_string()).collect();
    (!places.is_empty()).then(|| Caution {
        station: Station::Part,
        sentence: format!(
            "{} of its entries cannot be read (no. {}): what they said is not in this plan.",
            job.damaged.len(),
            places.join(", ")
        ),
    })
}
