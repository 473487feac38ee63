/* What is asked of the system: a thread's priority, and the file cache. */
#include "hardybench.h"

#include <errno.h>
#include <fcntl.h>
#include <stdlib.h>
#include <sys/mman.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <unistd.h>

#include <libavutil/error.h>

int hb_raise_priority(void)
{
    return setpriority(PRIO_PROCESS, (id_t)syscall(SYS_gettid), -10);
}

int hb_cache(const char *path, int warm)
{
    enum { SIZE = 1 << 20 };
    char *bytes = malloc(SIZE);
    int file, code = AVERROR(ENOMEM);
    ssize_t some;
    if (!bytes)
        return code;
    if ((file = open(path, O_RDONLY | O_CLOEXEC)) < 0) {
        code = AVERROR(errno);
        free(bytes);
        return code;
    }
    if (warm) {
        while ((some = read(file, bytes, SIZE)) > 0)
            ;
        code = some < 0 ? AVERROR(errno) : 0;
    } else if (fdatasync(file) < 0) { /* pages not yet written cannot be dropped */
        code = AVERROR(errno);
    } else {
        code = AVERROR(posix_fadvise(file, 0, 0, POSIX_FADV_DONTNEED)); /* gives its error and does not set errno */
    }
    free(bytes);
    close(file);
    return code;
}

int hb_cached(const char *path)
{
    int file = open(path, O_RDONLY | O_CLOEXEC), code = AVERROR(ENOMEM);
    long page = sysconf(_SC_PAGESIZE);
    struct stat about = {0};
    size_t pages, held = 0;
    unsigned char *present;
    void *mapped;
    if (file < 0)
        return AVERROR(errno);
    if (fstat(file, &about) < 0) {
        code = AVERROR(errno);
        close(file);
        return code;
    }
    if (about.st_size == 0) {
        close(file);
        return 1000000;
    }
    pages = (about.st_size + page - 1) / page;
    present = malloc(pages);
    mapped = present ? mmap(NULL, about.st_size, PROT_READ, MAP_SHARED, file, 0) : MAP_FAILED;
    if (mapped != MAP_FAILED) {
        if (mincore(mapped, about.st_size, present) == 0) {
            for (size_t i = 0; i < pages; i++)
                held += present[i] & 1;
            code = (int)(held * 1000000 / pages);
        } else {
            code = AVERROR(errno);
        }
        munmap(mapped, about.st_size);
    } else if (present) {
        code = AVERROR(errno);
    }
    free(present);
    close(file);
    return code;
}
