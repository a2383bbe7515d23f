#!/usr/bin/perl
# MARC::Lint over every record of a file, as its documentation shows.
use strict; use warnings; use MARC::Batch; use MARC::Lint;
my $batch = MARC::Batch->new('USMARC', $ARGV[0]); $batch->strict_off; $batch->warnings_off;
my $lint = MARC::Lint->new; my $told = 0;
while (my $record = $batch->next) { $lint->check_record($record); $told += scalar $lint->warnings; }
print "$told\n";
