@echo off
rem Starts Protypos from where it was unpacked.
setlocal
set "home=%~dp0.."
set "jar=%home%\lib\protypos.jar"
set "java=java"
if defined JAVA_HOME set "java=%JAVA_HOME%\bin\java.exe"
"%java%" -version >nul 2>&1
if errorlevel 1 (
    echo protypos: there is no Java: install a JDK of version 17 or later, or let JAVA_HOME name one 1>&2
    exit /b 3
)
set "flags=-XX:+UseSerialGC -XX:TieredStopAtLevel=1 -XX:-UsePerfData -Xshare:auto -Xlog:disable -Xlog:all=error:stderr"
rem What may take long is worth compiling better, which later flags ask for.
if "%~1"=="infer" set "flags=%flags% -XX:TieredStopAtLevel=4"
if "%~1"=="stand-in" set "flags=%flags% -XX:TieredStopAtLevel=4"
"%java%" %flags% %PROTYPOS_JAVA_FLAGS% -cp "%jar%" org.protypos.cli.Main %*
exit /b %ERRORLEVEL%
