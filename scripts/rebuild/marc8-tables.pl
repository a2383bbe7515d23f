#!/usr/bin/perl
# Rebuilds packages/core/marc/charset/marc8-tables.json from the code tables of MARC::Charset
# (Debian: libmarc-charset-perl), which carries the Library of Congress MARC-8 mappings.
# Facts only: character set byte -> pairs of MARC-8 code (hex) and Unicode code point (hex); combining marks apart.
use strict; use warnings; use MARC::Charset::Table; use JSON::PP;
my $db = MARC::Charset::Table->new->db;
my (%sets, %combining);
for my $key (keys %$db) {
  my $code = MARC::Charset::Table->new->get_code($key) or next;
  my $marc = $code->marc or next;
  my $ucs = $code->ucs || $code->alt or next;
  my $set = $code->charset; next unless length $set;
  $sets{$set}{uc $marc} = uc $ucs;
  $combining{$set}{uc $marc} = 1 if $code->is_combining;
}
my %out;
for my $set (keys %sets) {
  $out{$set} = { codes => join(' ', map { "$_=$sets{$set}{$_}" } sort keys %{$sets{$set}}),
                 combining => join(' ', sort keys %{$combining{$set} || {}}) };
}
print JSON::PP->new->canonical->indent->indent_length(1)->encode({
  source => 'MARC 21 Specifications: Character Sets, MARC-8 code tables, read from libmarc-charset-perl by scripts/rebuild/marc8-tables.pl',
  sets => \%out });
