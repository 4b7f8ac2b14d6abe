//! How plain data of the open formats is declared: readable, writable, described, and closed to unknown fields.

macro_rules! wire {
    ($(#[$meta:meta])* pub struct $name:ident { $($body:tt)* }) => {
        $(#[$meta])*
        #[derive(Clone, Debug, PartialEq, serde::Serialize, serde::Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(deny_unknown_fields)]
        pub struct $name { $($body)* }
    };
}

macro_rules! word {
    ($(#[$meta:meta])* pub enum $name:ident { $($(#[$vmeta:meta])* $variant:ident),* $(,)? }) => {
        $(#[$meta])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, serde::Serialize, serde::Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "snake_case")]
        pub enum $name { $($(#[$vmeta])* $variant),* }

        impl $name {
            /// All of them, in their order.
            pub const ALL: &'static [Self] = &[$(Self::$variant),*];
        }
    };
}

/// What is only ever written: answers, described and never read back.
macro_rules! report {
    ($($(#[$meta:meta])* pub struct $name:ident { $($body:tt)* })*) => {
        $(
            $(#[$meta])*
            #[derive(Clone, Debug, PartialEq, serde::Serialize)]
            #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
            pub struct $name { $($body)* }
        )*
    };
}

/// A word that is only ever written.
macro_rules! report_word {
    ($($(#[$meta:meta])* pub enum $name:ident { $($(#[$vmeta:meta])* $variant:ident),* $(,)? })*) => {
        $(
            $(#[$meta])*
            #[derive(Clone, Copy, Debug, PartialEq, Eq, serde::Serialize)]
            #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
            #[serde(rename_all = "snake_case")]
            pub enum $name { $($(#[$vmeta])* $variant),* }
        )*
    };
}

pub(crate) use {report, report_word, wire, word};
