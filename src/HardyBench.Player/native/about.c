/* Versions of the libraries, and errors in words. */
#include "hardybench.h"

#include <stdio.h>

#include <libavcodec/avcodec.h>
#include <libavfilter/avfilter.h>
#include <libavformat/avformat.h>

const char *hb_library_versions(void)
{
    static char text[96];
    unsigned c = avcodec_version(), f = avformat_version(), a = avfilter_version();
    av_log_set_level(AV_LOG_QUIET);
    snprintf(text, sizeof text, "libavcodec %u.%u, libavformat %u.%u, libavfilter %u.%u",
             c >> 16, c >> 8 & 255, f >> 16, f >> 8 & 255, a >> 16, a >> 8 & 255);
    return text;
}

void hb_error_text(int code, char *text, int size)
{
    if (code == HB_NO_VIDEO)
        snprintf(text, size, "there is no video in it");
    else if (code == HB_TRUNCATED)
        snprintf(text, size, "it ends before its last frame");
    else if (code == HB_CHANGED)
        snprintf(text, size, "its raster or pixel format changes in mid-stream, which cannot be played; convert it to one of them");
    else if (code == HB_OTHER_STREAM)
        snprintf(text, size, "it does not hold the stream that it did when it was looked into; bring it again");
    else if (code == AVERROR_EXIT)
        snprintf(text, size, "reading it was given up, because it took too long or playing was stopped");
    else
        av_strerror(code, text, size);
}
