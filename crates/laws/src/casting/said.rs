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

choice! {
    /// Classes of parts that are referred out unless a named authority is entered.
    pub enum SafetyClass {
        None = "none", "None of these";
        BoilerOrPressureVessel = "boiler_or_pressure_vessel", "Boiler, pressure vessel, receiver, compressor head";
        HydraulicOrCylinder = "hydraulic_or_cylinder", "Hydraulic body or gas cylinder";
        PressurePiping = "pressure_piping", "Pressure piping of gas, steam or drinking water";
        BurnerOrFlue = "burner_or_flue", "Gas burner or flue";
        Lifting = "lifting", "Lifting gear, hook, chain, jack";
        Towing = "towing", "Towing gear";
        SteeringBrakesSuspension = "steering_brakes_suspension", "Vehicle steering, brakes, suspension";
        Aircraft = "aircraft", "Aircraft";
        PressFrameOrGuard = "press_frame_or_guard", "Press frame, or a guard that protects a person";
        Rotating = "rotating", "Rotating part, or rollers without a guard";
        Structure = "structure", "Structural column, axle, or what drops a load or a person";
        MedicalOrRide = "medical_or_ride", "Medical, fairground ride";
    }
}

impl SafetyClass {
    /// House: under pressure, above heads, on the road nothing that is typed here opens a repair.
    #[must_use]
    pub fn never_opens(self) -> bool {
        matches!(
            self,
            Self::BoilerOrPressureVessel
                | Self::HydraulicOrCylinder
                | Self::PressurePiping
                | Self::Lifting
                | Self::SteeringBrakesSuspension
        )
    }
}

choice! {
    /// Who may answer for a part that is referred out.
    pub enum Authority {
        OwnersEngineer = "owners_engineer", "The owner's engineer";
        Inspector = "inspector", "Inspector";
        Code = "code", "Code or classification body";
    }
}

choice! {
    /// How long a repair has to last.
    pub enum Lifetime {
        UntilNew = "until_new", "Till the new one";
        Season = "season", "A season";
        Good = "good", "For good";
    }
}

choice! {
    /// What a part carries. That it carries nothing is an answer: no load then.
    pub enum Load {
        Static = "static", "Steady";
        Bending = "bending", "Bending";
        Shock = "shock", "Shock";
        None = "none", "Nothing: it only shows";
    }
}

impl Load {
    /// It bends, or is knocked.
    #[must_use]
    pub fn bends(self) -> bool {
        matches!(self, Self::Bending | Self::Shock)
    }
}

choice! {
    /// What lies on its faces.
    pub enum Coating {
        Bare = "bare", "Bare";
        Paint = "paint", "Paint";
        Galvanised = "galvanised", "Galvanised";
        Plated = "plated", "Plated";
        Enamel = "enamel", "Enamel";
    }
}

choice! {
    /// What makes poison or worse of heat. That nothing of it is there is an answer.
    pub enum Hazard {
        None = "none", "None of these";
        Seals = "seals", "Seals of fluoroelastomer or PTFE";
        Chlorinated = "chlorinated", "Cleaner with chlorine, not flashed off";
        Cadmium = "cadmium", "Cadmium, or plating that may be";
    }
}

choice! {
    /// What a picture shows.
    pub enum Shows {
        Overall = "overall", "All of it";
        Break = "break", "The break";
        Mark = "mark", "A mark";
        Before = "before", "Before";
        After = "after", "After";
    }
}
