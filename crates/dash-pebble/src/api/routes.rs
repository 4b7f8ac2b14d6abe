//! Where handlers are reached.
//!
//! What a handler says of itself carries every type it mentions, and every type those mention, each time anew: for all of
//! them that is half a second of work. It is done when the contract is asked for; a start only needs paths and methods.

use super::App;
use axum::Router;
use axum::handler::Handler;
use axum::routing::{MethodFilter, on};
use utoipa::openapi::HttpMethod;

/// One list of handlers: a function that routes each group, and `Contract`, the document of all.
macro_rules! handlers {
    ($($(#[$about:meta])* $group:ident { $($room:ident :: $handler:ident),+ $(,)? })+) => {
        pastey::paste! {
            $(
                $(#[$about])*
                fn $group() -> axum::Router<App> {
                    let router = axum::Router::new();
                    $(let router = routes::with::<$room::[<__path_ $handler>], _, _>(router, $room::$handler);)+
                    router
                }
            )+
        }

        #[derive(utoipa::OpenApi)]
        #[openapi(paths($($($room::$handler),+),+))]
        struct Contract;
    };
}
pub(super) use handlers;

/// The router with one more handler, at the path and for the methods it names.
pub fn with<P: utoipa::Path, H: Handler<T, App>, T: 'static>(router: Router<App>, handler: H) -> Router<App> {
    P::methods()
        .into_iter()
        .fold(router, |router, method| router.route(&P::path(), on(filter(method), handler.clone())))
}

fn filter(method: HttpMethod) -> MethodFilter {
    match method {
        HttpMethod::Get => MethodFilter::GET,
        HttpMethod::Put => MethodFilter::PUT,
        HttpMethod::Post => MethodFilter::POST,
        HttpMethod::Head => MethodFilter::HEAD,
        HttpMethod::Patch => MethodFilter::PATCH,
        HttpMethod::Trace => MethodFilter::TRACE,
        HttpMethod::Delete => MethodFilter::DELETE,
        HttpMethod::Options => MethodFilter::OPTIONS,
    }
}
