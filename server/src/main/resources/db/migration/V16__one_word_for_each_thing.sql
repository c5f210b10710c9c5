-- Tables and columns are called what screens and the API call them.
alter table thing rename to site_resource;
alter table stranger rename to unknown_device;
alter table claim rename column taking to allocation;
alter table address_range rename column taking to allocation;
