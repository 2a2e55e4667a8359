//! What is said of a casting: how it broke, what it holds, what is in its pores.

use crate::base::choice::choice;

choice! {
    /// What is in its pores.
    pub enum Oil {
        Clean = "clean", "Clean";
        Soaked = "soaked", "Oil-soaked";
        BakedClean = "baked_clean", "Soaked, now baked clean";
    }
}

choice! {
    /// A hollow that is closed all round bursts when it is heated.
    pub enum Cavity {
        None = "none", "None";
        Vented = "vented", "Vented";
        Closed = "closed", "Closed, no vent";
    }
}

choice! {
    /// Where it is machined afterwards.
    pub enum Machined {
        Nothing = "nothing", "Nothing";
        Elsewhere = "elsewhere", "Elsewhere";
        Across = "across", "Across the joint";
    }
}

choice! {
    /// From where its seam can be reached.
    pub enum Reached {
        One = "one", "One side";
        Both = "both", "Both sides";
    }
}

choice! {
    /// What broke it.
    pub enum BrokeBy {
        Impact = "impact", "A blow";
        Overload = "overload", "Overloaded";
        Freeze = "freeze", "Frozen";
        HeatCycling = "heat_cycling", "Heating and cooling";
        LockedIn = "locked_in", "Stress from casting";
        Wear = "wear", "Worn through";
        Unknown = "unknown", "Nobody knows";
    }
}

choice! {
    /// What it holds.
    pub enum Contents {
        Nothing = "nothing", "Nothing";
        Water = "water", "Water";
        DrinkingWater = "drinking_water", "Drinking water";
        Oil = "oil", "Oil";
        Fuel = "fuel", "Fuel or solvent";
        Fumes = "fumes", "Only fumes: a carburettor, an intake";
        Gas = "gas", "Air, gas or steam";
        Duct = "duct", "Intake or exhaust gas, a manifold";
    }
}

choice! {
    /// Where it is mended.
    pub enum MendedAt {
        Bench = "bench", "On the bench";
        InPlace = "in_place", "In place";
    }
}

choice! {
    /// How the repaired face is seen.
    pub enum SeenAs {
        Hidden = "hidden", "Hidden";
        Painted = "painted", "Seen, painted";
        Bare = "bare", "Seen bare";
    }
}

choice! {
    /// Where a test may leave a mark.
    pub enum TestMarks {
        #[serde(rename = "any")]
        Anywhere = "any", "Anywhere";
        Hidden = "hidden", "Where hidden";
        None = "none", "None at all";
    }
}
