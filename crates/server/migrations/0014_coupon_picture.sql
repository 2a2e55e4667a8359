-- A picture of a coupon that was broken, turned upright and without anything but the picture itself.
create table coupon_picture (
    coupon  text    primary key,
    jpeg    blob    not null,
    small   blob    not null
) strict;
