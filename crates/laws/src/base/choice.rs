//! What can be chosen, as a type.

/// An enum of what can be chosen in a field, each with its id and its label: the same on the disk, in the core, on the
/// wire and on the page.
#[macro_export]
macro_rules! __choice {
    (
        $(#[$about:meta])*
        pub enum $name:ident {
            $($(#[$of:meta])* $variant:ident = $id:literal, $label:literal;)+
        }
    ) => {
        $(#[$about])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, serde::Serialize, serde::Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "snake_case")]
        pub enum $name {
            $($(#[$of])* $variant,)+
        }

        impl $name {
            /// `(id, label)`, in the order shown.
            pub const CHOICES: &'static [(&'static str, &'static str)] = &[$(($id, $label)),+];

            /// All of them, in the order shown.
            #[allow(dead_code)]
            pub fn all() -> impl Iterator<Item = Self> {
                [$(Self::$variant),+].into_iter()
            }

            #[must_use]
            pub fn from_id(id: &str) -> Option<Self> {
                match id {
                    $($id => Some(Self::$variant),)+
                    _ => None,
                }
            }

            #[must_use]
            pub const fn id(self) -> &'static str {
                match self {
                    $(Self::$variant => $id,)+
                }
            }

            #[must_use]
            pub fn label(self) -> &'static str {
                match self {
                    $(Self::$variant => $label,)+
                }
            }
        }
    };
}
pub use __choice as choice;
