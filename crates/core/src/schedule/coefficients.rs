//! What putting doughs on the clock rests on.

use crate::coefficient::{Coefficient, coefficients};

coefficients! {
    /// A night in the cold put in where a method has none, °C.
    RETARD_C = Coefficient::house("retard_c", "a night in the cold that is put in", (4.0, 2.0, 6.0),
        "°C", "a refrigerator's").within(0.0, 12.0);
    /// Bulk shorter than this is floor time, minutes.
    BULK_MIN = Coefficient::house("bulk_min", "a rest is bulk from", (40.0, 30.0, 60.0), "min",
        "what hardly lies has nothing to be slowed down");
    /// Minutes in which a dough must be divided, and a no-time dough.
    DIVIDE_MIN = Coefficient::house("divide_limit", "a dough is divided within",
        (20.0, 15.0, 25.0), "min", "the last piece must not be another dough than the first");
    NO_TIME_DIVIDE_MIN = Coefficient::house("no_time_divide_limit", "a no-time dough is divided within",
        (15.0, 10.0, 20.0), "min", "it ages faster than it is warm");
    /// Surplus pieces: cold through before they freeze, h; thawing, h; how long they keep, weeks;
    /// done so long before nobody is there any more, min.
    COLD_THROUGH_H = Coefficient::house("cold_through", "pieces are cold through after",
        (2.0, 1.0, 4.0), "h", "before they go into the freezer");
    THAW_H = Coefficient::house("thaw", "pieces thaw in the refrigerator for", (24.0, 16.0, 30.0),
        "h", "a day, for an even core");
    KEEP_WEEKS = Coefficient::house("frozen_keeps", "frozen dough keeps", (6.0, 4.0, 8.0), "weeks",
        "yeast and film lose strength");
    BEFORE_CLOSING_MIN = Coefficient::house("before_closing", "done before closed hours begin",
        (15.0, 5.0, 30.0), "min", "nobody stays for it");
}
