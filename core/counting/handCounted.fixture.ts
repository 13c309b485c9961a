/**
 * A log that was counted by hand, line by line: day and time in November 2026 (UTC), who, episode, file, method, status, range, bytes that
 * were sent, what is known of whoever asked, whether the line makes a download, and the rule of the guidelines that it stands for
 * (version 2.2, from memory). The file `long` has 128 kbit/s (960,000 bytes a minute) behind 50,000 bytes of tags and artwork,
 * `short` 20 seconds behind 1,000 bytes, `new` none before its sound.
 */
export const handCounted = `
20T05:00:00 p0    36 long  GET  200 -                  20000001  -        yes the whole file in one answer
20T05:17:00 p1    36 long  GET  200 -                  20000001  -        yes the whole file again on that day counts once
20T08:37:00 p1    36 long  GET  200 -                  20000001  -        no  the whole file again on that day counts once
20T05:34:00 p2    36 long  GET  200 -                  1010000   -        yes just a minute, with the tags before it
20T05:51:00 p3    36 long  GET  200 -                  1009999   -        no  a byte less than a minute
20T06:08:00 p4    36 long  GET  200 -                  50000     -        no  tags and artwork only
20T06:25:00 p5    36 long  GET  206 0-1                2         -        no  two bytes first, to see whether there are ranges, then the whole
20T06:26:00 p5    36 long  GET  206 0-20000000         20000001  -        yes two bytes first, to see whether there are ranges, then the whole
20T06:42:00 p6    36 long  GET  206 0-529999           530000    -        no  a minute in two pieces that touch
20T06:43:00 p6    36 long  GET  206 530000-1009999     480000    -        yes a minute in two pieces that touch
20T06:59:00 p7    36 long  GET  206 0-699999           700000    -        no  a minute in two pieces that overlap
20T07:00:00 p7    36 long  GET  206 500000-1009999     510000    -        yes a minute in two pieces that overlap
20T07:16:00 p8    36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T07:21:00 p8    36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T07:33:00 p9    36 long  GET  206 410000-529999      120000    -        no  a minute in eight pieces, in no order
20T07:34:00 p9    36 long  GET  206 50000-169999       120000    -        no  a minute in eight pieces, in no order
20T07:35:00 p9    36 long  GET  206 890000-1009999     120000    -        no  a minute in eight pieces, in no order
20T07:36:00 p9    36 long  GET  206 170000-289999      120000    -        no  a minute in eight pieces, in no order
20T07:37:00 p9    36 long  GET  206 770000-889999      120000    -        no  a minute in eight pieces, in no order
20T07:38:00 p9    36 long  GET  206 290000-409999      120000    -        no  a minute in eight pieces, in no order
20T07:39:00 p9    36 long  GET  206 650000-769999      120000    -        no  a minute in eight pieces, in no order
20T07:40:00 p9    36 long  GET  206 530000-649999      120000    -        yes a minute in eight pieces, in no order
20T07:50:00 p10   36 long  GET  206 9000000-9959999    960000    -        yes a minute from the middle
20T08:07:00 p11   36 long  GET  206 50000-529999       480000    -        no  half a minute at either end
20T08:16:00 p11   36 long  GET  206 19520001-20000000  480000    -        yes half a minute at either end
20T08:24:00 p12   36 long  GET  206 0-20000000         400000    -        no  broken off before a minute
20T08:41:00 p13   36 long  GET  206 0-20000000         600000    -        no  broken off, and taken up again
20T08:44:00 p13   36 long  GET  206 600000-20000000    500000    -        yes broken off, and taken up again
20T08:58:00 p14   36 long  HEAD 200 -                  0         -        no  asked by HEAD only
20T09:15:00 p15   36 long  HEAD 200 -                  0         -        no  asked by HEAD, then fetched
20T09:16:00 p15   36 long  GET  200 -                  20000001  -        yes asked by HEAD, then fetched
20T09:32:00 p16   36 long  GET  304 -                  0         -        no  had it already
20T09:49:00 p17   36 long  GET  404 -                  300       -        no  not there
20T10:06:00 p18   36 long  GET  416 -                  0         -        no  a range that cannot be had
20T10:23:00 p19   36 long  GET  200 -                  20000001  robot    no  a robot
20T10:40:00 p20   36 long  GET  200 -                  20000001  hosted   no  from a data centre
20T10:57:00 p21   36 long  GET  200 -                  20000001  prefetch no  loaded before anybody pressed play
20T11:14:00 p22   35 short GET  200 -                  321000    -        yes all of a file that is shorter than a minute
20T11:31:00 p23   35 short GET  200 -                  320999    -        no  all but a byte of a file that is shorter than a minute
20T11:48:00 p24   36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T11:48:00 p25   36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T12:22:00 p26   36 long  GET  200 -                  20000001  -        yes two episodes by one
20T12:23:00 p26   35 short GET  200 -                  321000    -        yes two episodes by one
20T12:39:00 p27   36 long  GET  206 50000-529999       480000    -        no  half of one file, and half of the one that took its place at noon
20T19:19:00 p27   36 new   GET  206 0-479999           480000    -        no  half of one file, and half of the one that took its place at noon
20T12:56:00 p28   36 long  GET  200 -                  20000001  -        yes one file, and the one that took its place
20T19:36:00 p28   36 new   GET  200 -                  10000000  -        no  one file, and the one that took its place
20T13:13:00 p29   36 long  GET  206 2000000-1000000    1000001   -        no  a range that runs backwards
20T13:30:00 p30   36 long  GET  206 19900000-90000000  70100001  -        no  a range that lies about the length
20T13:47:00 p31   36 gone  GET  200 -                  20000001  -        no  a file that is not known
20T14:04:00 p32   36 long  GET  206 50000-1009999      ?         -        yes sent by a proxy that does not tell how much
20T23:59:30 p33   36 long  GET  206 50000-529999       480000    -        no  half before midnight, half after: two days, and none
21T00:00:30 p33   36 long  GET  206 530000-1009999     480000    -        no  half before midnight, half after: two days, and none
20T14:38:00 p34   36 long  GET  200 -                  20000001  -        yes a watch and its telephone are one
20T14:40:00 p34   36 long  GET  200 -                  20000001  watch    no  a watch and its telephone are one
20T14:55:00 p35   36 long  GET  200 -                  20000001  -        yes the whole file in one answer
20T15:12:00 p36   36 long  GET  200 -                  20000001  -        yes the whole file again on that day counts once
20T18:32:00 p36   36 long  GET  200 -                  20000001  -        no  the whole file again on that day counts once
20T15:29:00 p37   36 long  GET  200 -                  1010000   -        yes just a minute, with the tags before it
20T15:46:00 p38   36 long  GET  200 -                  1009999   -        no  a byte less than a minute
20T16:03:00 p39   36 long  GET  200 -                  50000     -        no  tags and artwork only
20T05:00:00 p40   36 long  GET  206 0-1                2         -        no  two bytes first, to see whether there are ranges, then the whole
20T05:01:00 p40   36 long  GET  206 0-20000000         20000001  -        yes two bytes first, to see whether there are ranges, then the whole
20T05:17:00 p41   36 long  GET  206 0-529999           530000    -        no  a minute in two pieces that touch
20T05:18:00 p41   36 long  GET  206 530000-1009999     480000    -        yes a minute in two pieces that touch
20T05:34:00 p42   36 long  GET  206 0-699999           700000    -        no  a minute in two pieces that overlap
20T05:35:00 p42   36 long  GET  206 500000-1009999     510000    -        yes a minute in two pieces that overlap
20T05:51:00 p43   36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T05:56:00 p43   36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T06:08:00 p44   36 long  GET  206 410000-529999      120000    -        no  a minute in eight pieces, in no order
20T06:09:00 p44   36 long  GET  206 50000-169999       120000    -        no  a minute in eight pieces, in no order
20T06:10:00 p44   36 long  GET  206 890000-1009999     120000    -        no  a minute in eight pieces, in no order
20T06:11:00 p44   36 long  GET  206 170000-289999      120000    -        no  a minute in eight pieces, in no order
20T06:12:00 p44   36 long  GET  206 770000-889999      120000    -        no  a minute in eight pieces, in no order
20T06:13:00 p44   36 long  GET  206 290000-409999      120000    -        no  a minute in eight pieces, in no order
20T06:14:00 p44   36 long  GET  206 650000-769999      120000    -        no  a minute in eight pieces, in no order
20T06:15:00 p44   36 long  GET  206 530000-649999      120000    -        yes a minute in eight pieces, in no order
20T06:25:00 p45   36 long  GET  206 9000000-9959999    960000    -        yes a minute from the middle
20T06:42:00 p46   36 long  GET  206 50000-529999       480000    -        no  half a minute at either end
20T06:51:00 p46   36 long  GET  206 19520001-20000000  480000    -        yes half a minute at either end
20T06:59:00 p47   36 long  GET  206 0-20000000         400000    -        no  broken off before a minute
20T07:16:00 p48   36 long  GET  206 0-20000000         600000    -        no  broken off, and taken up again
20T07:19:00 p48   36 long  GET  206 600000-20000000    500000    -        yes broken off, and taken up again
20T07:33:00 p49   36 long  HEAD 200 -                  0         -        no  asked by HEAD only
20T07:50:00 p50   36 long  HEAD 200 -                  0         -        no  asked by HEAD, then fetched
20T07:51:00 p50   36 long  GET  200 -                  20000001  -        yes asked by HEAD, then fetched
20T08:07:00 p51   36 long  GET  304 -                  0         -        no  had it already
20T08:24:00 p52   36 long  GET  404 -                  300       -        no  not there
20T08:41:00 p53   36 long  GET  416 -                  0         -        no  a range that cannot be had
20T08:58:00 p54   36 long  GET  200 -                  20000001  robot    no  a robot
20T09:15:00 p55   36 long  GET  200 -                  20000001  hosted   no  from a data centre
20T09:32:00 p56   36 long  GET  200 -                  20000001  prefetch no  loaded before anybody pressed play
20T09:49:00 p57   35 short GET  200 -                  321000    -        yes all of a file that is shorter than a minute
20T10:06:00 p58   35 short GET  200 -                  320999    -        no  all but a byte of a file that is shorter than a minute
20T10:23:00 p59   36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T10:23:00 p60   36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T10:57:00 p61   36 long  GET  200 -                  20000001  -        yes two episodes by one
20T10:58:00 p61   35 short GET  200 -                  321000    -        yes two episodes by one
20T11:14:00 p62   36 long  GET  206 50000-529999       480000    -        no  half of one file, and half of the one that took its place at noon
20T17:54:00 p62   36 new   GET  206 0-479999           480000    -        no  half of one file, and half of the one that took its place at noon
20T11:31:00 p63   36 long  GET  200 -                  20000001  -        yes one file, and the one that took its place
20T18:11:00 p63   36 new   GET  200 -                  10000000  -        no  one file, and the one that took its place
20T11:48:00 p64   36 long  GET  206 2000000-1000000    1000001   -        no  a range that runs backwards
20T12:05:00 p65   36 long  GET  206 19900000-90000000  70100001  -        no  a range that lies about the length
20T12:22:00 p66   36 gone  GET  200 -                  20000001  -        no  a file that is not known
20T12:39:00 p67   36 long  GET  206 50000-1009999      ?         -        yes sent by a proxy that does not tell how much
20T23:59:30 p68   36 long  GET  206 50000-529999       480000    -        no  half before midnight, half after: two days, and none
21T00:00:30 p68   36 long  GET  206 530000-1009999     480000    -        no  half before midnight, half after: two days, and none
20T13:13:00 p69   36 long  GET  200 -                  20000001  -        yes a watch and its telephone are one
20T13:15:00 p69   36 long  GET  200 -                  20000001  watch    no  a watch and its telephone are one
20T13:30:00 p70   36 long  GET  200 -                  20000001  -        yes the whole file in one answer
20T13:47:00 p71   36 long  GET  200 -                  20000001  -        yes the whole file again on that day counts once
20T17:07:00 p71   36 long  GET  200 -                  20000001  -        no  the whole file again on that day counts once
20T14:04:00 p72   36 long  GET  200 -                  1010000   -        yes just a minute, with the tags before it
20T14:21:00 p73   36 long  GET  200 -                  1009999   -        no  a byte less than a minute
20T14:38:00 p74   36 long  GET  200 -                  50000     -        no  tags and artwork only
20T14:55:00 p75   36 long  GET  206 0-1                2         -        no  two bytes first, to see whether there are ranges, then the whole
20T14:56:00 p75   36 long  GET  206 0-20000000         20000001  -        yes two bytes first, to see whether there are ranges, then the whole
20T15:12:00 p76   36 long  GET  206 0-529999           530000    -        no  a minute in two pieces that touch
20T15:13:00 p76   36 long  GET  206 530000-1009999     480000    -        yes a minute in two pieces that touch
20T15:29:00 p77   36 long  GET  206 0-699999           700000    -        no  a minute in two pieces that overlap
20T15:30:00 p77   36 long  GET  206 500000-1009999     510000    -        yes a minute in two pieces that overlap
20T15:46:00 p78   36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T15:51:00 p78   36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T16:03:00 p79   36 long  GET  206 410000-529999      120000    -        no  a minute in eight pieces, in no order
20T16:04:00 p79   36 long  GET  206 50000-169999       120000    -        no  a minute in eight pieces, in no order
20T16:05:00 p79   36 long  GET  206 890000-1009999     120000    -        no  a minute in eight pieces, in no order
20T16:06:00 p79   36 long  GET  206 170000-289999      120000    -        no  a minute in eight pieces, in no order
20T16:07:00 p79   36 long  GET  206 770000-889999      120000    -        no  a minute in eight pieces, in no order
20T16:08:00 p79   36 long  GET  206 290000-409999      120000    -        no  a minute in eight pieces, in no order
20T16:09:00 p79   36 long  GET  206 650000-769999      120000    -        no  a minute in eight pieces, in no order
20T16:10:00 p79   36 long  GET  206 530000-649999      120000    -        yes a minute in eight pieces, in no order
20T05:00:00 p80   36 long  GET  206 9000000-9959999    960000    -        yes a minute from the middle
20T05:17:00 p81   36 long  GET  206 50000-529999       480000    -        no  half a minute at either end
20T05:26:00 p81   36 long  GET  206 19520001-20000000  480000    -        yes half a minute at either end
20T05:34:00 p82   36 long  GET  206 0-20000000         400000    -        no  broken off before a minute
20T05:51:00 p83   36 long  GET  206 0-20000000         600000    -        no  broken off, and taken up again
20T05:54:00 p83   36 long  GET  206 600000-20000000    500000    -        yes broken off, and taken up again
20T06:08:00 p84   36 long  HEAD 200 -                  0         -        no  asked by HEAD only
20T06:25:00 p85   36 long  HEAD 200 -                  0         -        no  asked by HEAD, then fetched
20T06:26:00 p85   36 long  GET  200 -                  20000001  -        yes asked by HEAD, then fetched
20T06:42:00 p86   36 long  GET  304 -                  0         -        no  had it already
20T06:59:00 p87   36 long  GET  404 -                  300       -        no  not there
20T07:16:00 p88   36 long  GET  416 -                  0         -        no  a range that cannot be had
20T07:33:00 p89   36 long  GET  200 -                  20000001  robot    no  a robot
20T07:50:00 p90   36 long  GET  200 -                  20000001  hosted   no  from a data centre
20T08:07:00 p91   36 long  GET  200 -                  20000001  prefetch no  loaded before anybody pressed play
20T08:24:00 p92   35 short GET  200 -                  321000    -        yes all of a file that is shorter than a minute
20T08:41:00 p93   35 short GET  200 -                  320999    -        no  all but a byte of a file that is shorter than a minute
20T08:58:00 p94   36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T08:58:00 p95   36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T09:32:00 p96   36 long  GET  200 -                  20000001  -        yes two episodes by one
20T09:33:00 p96   35 short GET  200 -                  321000    -        yes two episodes by one
20T09:49:00 p97   36 long  GET  206 50000-529999       480000    -        no  half of one file, and half of the one that took its place at noon
20T16:29:00 p97   36 new   GET  206 0-479999           480000    -        no  half of one file, and half of the one that took its place at noon
20T10:06:00 p98   36 long  GET  200 -                  20000001  -        yes one file, and the one that took its place
20T16:46:00 p98   36 new   GET  200 -                  10000000  -        no  one file, and the one that took its place
20T10:23:00 p99   36 long  GET  206 2000000-1000000    1000001   -        no  a range that runs backwards
20T10:40:00 p100  36 long  GET  206 19900000-90000000  70100001  -        no  a range that lies about the length
20T10:57:00 p101  36 gone  GET  200 -                  20000001  -        no  a file that is not known
20T11:14:00 p102  36 long  GET  206 50000-1009999      ?         -        yes sent by a proxy that does not tell how much
20T23:59:30 p103  36 long  GET  206 50000-529999       480000    -        no  half before midnight, half after: two days, and none
21T00:00:30 p103  36 long  GET  206 530000-1009999     480000    -        no  half before midnight, half after: two days, and none
20T11:48:00 p104  36 long  GET  200 -                  20000001  -        yes a watch and its telephone are one
20T11:50:00 p104  36 long  GET  200 -                  20000001  watch    no  a watch and its telephone are one
20T12:05:00 p105  36 long  GET  200 -                  20000001  -        yes the whole file in one answer
20T12:22:00 p106  36 long  GET  200 -                  20000001  -        yes the whole file again on that day counts once
20T15:42:00 p106  36 long  GET  200 -                  20000001  -        no  the whole file again on that day counts once
20T12:39:00 p107  36 long  GET  200 -                  1010000   -        yes just a minute, with the tags before it
20T12:56:00 p108  36 long  GET  200 -                  1009999   -        no  a byte less than a minute
20T13:13:00 p109  36 long  GET  200 -                  50000     -        no  tags and artwork only
20T13:30:00 p110  36 long  GET  206 0-1                2         -        no  two bytes first, to see whether there are ranges, then the whole
20T13:31:00 p110  36 long  GET  206 0-20000000         20000001  -        yes two bytes first, to see whether there are ranges, then the whole
20T13:47:00 p111  36 long  GET  206 0-529999           530000    -        no  a minute in two pieces that touch
20T13:48:00 p111  36 long  GET  206 530000-1009999     480000    -        yes a minute in two pieces that touch
20T14:04:00 p112  36 long  GET  206 0-699999           700000    -        no  a minute in two pieces that overlap
20T14:05:00 p112  36 long  GET  206 500000-1009999     510000    -        yes a minute in two pieces that overlap
20T14:21:00 p113  36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T14:26:00 p113  36 long  GET  206 50000-529999       480000    -        no  the same half minute twice
20T14:38:00 p114  36 long  GET  206 9000000-9959999    960000    -        yes a minute from the middle
20T14:55:00 p115  36 long  GET  206 50000-529999       480000    -        no  half a minute at either end
20T15:04:00 p115  36 long  GET  206 19520001-20000000  480000    -        yes half a minute at either end
20T15:12:00 p116  36 long  GET  206 0-20000000         400000    -        no  broken off before a minute
20T15:29:00 p117  36 long  GET  206 0-20000000         600000    -        no  broken off, and taken up again
20T15:32:00 p117  36 long  GET  206 600000-20000000    500000    -        yes broken off, and taken up again
20T15:46:00 p118  36 long  HEAD 200 -                  0         -        no  asked by HEAD only
20T16:03:00 p119  36 long  HEAD 200 -                  0         -        no  asked by HEAD, then fetched
20T16:04:00 p119  36 long  GET  200 -                  20000001  -        yes asked by HEAD, then fetched
20T05:00:00 p120  36 long  GET  304 -                  0         -        no  had it already
20T05:17:00 p121  36 long  GET  404 -                  300       -        no  not there
20T05:34:00 p122  36 long  GET  416 -                  0         -        no  a range that cannot be had
20T05:51:00 p123  36 long  GET  200 -                  20000001  robot    no  a robot
20T06:08:00 p124  36 long  GET  200 -                  20000001  hosted   no  from a data centre
20T06:25:00 p125  36 long  GET  200 -                  20000001  prefetch no  loaded before anybody pressed play
20T06:42:00 p126  35 short GET  200 -                  321000    -        yes all of a file that is shorter than a minute
20T06:59:00 p127  35 short GET  200 -                  320999    -        no  all but a byte of a file that is shorter than a minute
20T07:16:00 p128  36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T07:16:00 p129  36 long  GET  200 -                  20000001  -        yes two people behind two addresses
20T07:50:00 p130  36 long  GET  200 -                  20000001  -        yes two episodes by one
20T07:51:00 p130  35 short GET  200 -                  321000    -        yes two episodes by one
20T08:07:00 p131  36 long  GET  206 50000-529999       480000    -        no  half of one file, and half of the one that took its place at noon
20T14:47:00 p131  36 new   GET  206 0-479999           480000    -        no  half of one file, and half of the one that took its place at noon
20T08:24:00 p132  36 long  GET  200 -                  20000001  -        yes one file, and the one that took its place
20T15:04:00 p132  36 new   GET  200 -                  10000000  -        no  one file, and the one that took its place
20T08:41:00 p133  36 long  GET  206 2000000-1000000    1000001   -        no  a range that runs backwards
20T08:58:00 p134  36 long  GET  206 19900000-90000000  70100001  -        no  a range that lies about the length
20T09:15:00 p135  36 gone  GET  200 -                  20000001  -        no  a file that is not known
20T09:32:00 p136  36 long  GET  206 50000-1009999      ?         -        yes sent by a proxy that does not tell how much
20T23:59:30 p137  36 long  GET  206 50000-529999       480000    -        no  half before midnight, half after: two days, and none
21T00:00:30 p137  36 long  GET  206 530000-1009999     480000    -        no  half before midnight, half after: two days, and none
20T10:06:00 p138  36 long  GET  200 -                  20000001  -        yes a watch and its telephone are one
20T10:08:00 p138  36 long  GET  200 -                  20000001  watch    no  a watch and its telephone are one
`
