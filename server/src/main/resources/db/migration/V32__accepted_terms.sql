-- site: which texts of licence terms were accepted, by kind; another text is asked about again
alter table site_resource drop constraint site_resource_sort_check;
alter table site_resource add constraint site_resource_sort_check check (sort in (
    'room', 'rack', 'host', 'fabric', 'source', 'policy', 'domain', 'time', 'relay', 'proxy', 'syslog', 'lines',
    'firmware', 'directory', 'terms'));
