-- What the Redfish service root of an unknown device says about it; null where none was read.
alter table unknown_device
  add column controller text check (length(controller) between 1 and 160);
