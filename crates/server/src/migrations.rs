//! The steps of the data file's layout, the first first. One that was released is never changed: what it was is checked.

use std::borrow::Cow;
use std::sync::LazyLock;

use sqlx::SqlSafeStr;
use sqlx::migrate::{Migration, MigrationType, Migrator};

const STEPS: &[(i64, &str, &str)] = &[
    (1, "bench", include_str!("../migrations/0001_bench.sql")),
    (2, "pictures", include_str!("../migrations/0002_pictures.sql")),
    (3, "folder and sender", include_str!("../migrations/0003_folder_and_sender.sql")),
    (4, "understood and rack line", include_str!("../migrations/0004_understood_and_rack_line.sql")),
    (5, "door", include_str!("../migrations/0005_door.sql")),
    (6, "shop log", include_str!("../migrations/0006_shop_log.sql")),
    (7, "straightened", include_str!("../migrations/0007_straightened.sql")),
    (8, "asks", include_str!("../migrations/0008_asks.sql")),
    (9, "channels", include_str!("../migrations/0009_channels.sql")),
    (10, "planned by", include_str!("../migrations/0010_planned_by.sql")),
    (11, "turned out", include_str!("../migrations/0011_turned_out.sql")),
    (12, "helper", include_str!("../migrations/0012_helper.sql")),
    (13, "practice", include_str!("../migrations/0013_practice.sql")),
    (14, "coupon picture", include_str!("../migrations/0014_coupon_picture.sql")),
];

pub static MIGRATIONS: LazyLock<Migrator> = LazyLock::new(|| {
    let step = |&(version, words, sql): &(i64, &'static str, &'static str)| {
        Migration::new(version, Cow::Borrowed(words), MigrationType::Simple, sql.into_sql_str(), false)
    };
    Migrator::with_migrations(STEPS.iter().map(step).collect())
});
