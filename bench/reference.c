/* The references that the service is measured against, in the same run.
 *   echo          reads fixed-size records from descriptor 0 and answers each at once with the time it did so, in ns
 *   sleep N P     sleeps N times to absolute deadlines P nanoseconds apart and prints how late each wake-up was, in ns
 */
#define _GNU_SOURCE
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>

enum { RECORD = 15 };

static long long now_ns(void) {
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    return t.tv_sec * 1000000000LL + t.tv_nsec;
}

int main(int argc, char **argv) {
    if (argc == 2 && !strcmp(argv[1], "echo")) {
        char record[RECORD];
        while (read(0, record, RECORD) == RECORD) {
            long long now = now_ns();
            if (write(1, &now, sizeof now) != sizeof now) return 1;
        }
        return 0;
    }
    if (argc == 4 && !strcmp(argv[1], "sleep")) {
        long count = atol(argv[2]);
        long long period = atoll(argv[3]), due = now_ns() + period;
        long long *late = malloc(sizeof *late * count);
        for (long n = 0; n < count; n++, due += period) {
            struct timespec t = {due / 1000000000LL, due % 1000000000LL};
            clock_nanosleep(CLOCK_MONOTONIC, TIMER_ABSTIME, &t, NULL);
            late[n] = now_ns() - due;
        }
        for (long n = 0; n < count; n++) printf("%lld\n", late[n]);
        return 0;
    }
    fprintf(stderr, "usage: reference echo | reference sleep N PERIOD_NS\n");
    return 2;
}
